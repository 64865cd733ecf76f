//go:build !wasm

package fmt

import "fmt"

// Sprintf formats by a format with the verbs that package small knows.
func Sprintf(format string, args ...any) string { return fmt.Sprintf(format, args...) }

// Errorf returns an error that says what Sprintf does, and wraps what %w says.
func Errorf(format string, args ...any) error { return fmt.Errorf(format, args...) }
