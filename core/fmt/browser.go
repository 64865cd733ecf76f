//go:build wasm

package fmt

import "earlychorus/core/fmt/small"

// Sprintf formats by a format with the verbs that package small knows.
func Sprintf(format string, args ...any) string { return small.Sprintf(format, args...) }

// Errorf returns an error that says what Sprintf does, and wraps what %w says.
func Errorf(format string, args ...any) error { return small.Errorf(format, args...) }
