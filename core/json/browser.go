//go:build wasm

package json

import "earlychorus/core/json/small"

// RawMessage is JSON that is read later, or was written before.
type RawMessage = small.RawMessage

// Marshal writes a value. Errors: what JSON does not hold.
func Marshal(v any) ([]byte, error) { return small.Marshal(v) }

// Unmarshal reads into what a pointer points to. Errors: no JSON, or not of that type.
func Unmarshal(data []byte, into any) error { return small.Unmarshal(data, into) }
