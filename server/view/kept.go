package view

import (
	"encoding/json"
	"reflect"

	"github.com/danielgtaylor/huma/v2"
)

// Kept is a T as the database keeps it, in JSON. A board has hundreds of ribbons,
// and reads none of them: they go through as they are.
type Kept[T any] json.RawMessage

// MarshalJSON passes it on.
func (k Kept[T]) MarshalJSON() ([]byte, error) {
	if len(k) == 0 {
		return []byte("null"), nil
	}
	return k, nil
}

// UnmarshalJSON keeps it as it comes.
func (k *Kept[T]) UnmarshalJSON(raw []byte) error {
	*k = append((*k)[:0], raw...)
	return nil
}

// Schema says that it is a T.
func (Kept[T]) Schema(r huma.Registry) *huma.Schema { return r.Schema(reflect.TypeFor[T](), true, "") }
