//go:build !wasm

package json

import "encoding/json"

// RawMessage is JSON that is read later, or was written before.
type RawMessage = json.RawMessage

// Marshal writes a value. Errors: what JSON does not hold.
func Marshal(v any) ([]byte, error) { return json.Marshal(v) }

// Unmarshal reads into what a pointer points to. Errors: no JSON, or not of that type.
func Unmarshal(data []byte, into any) error { return json.Unmarshal(data, into) }
