package view

import (
	"encoding/json"

	"earlychorus/core/instrument"
	"earlychorus/core/say"
	"earlychorus/core/verdict"
	"earlychorus/server/store"
)

// TellerOf returns who says conclusions to a class about an instrument. Errors: an
// unknown instrument.
func TellerOf(class store.Class, key string) (say.Teller, error) {
	i, err := instrument.Get(key)
	if err != nil {
		return say.Teller{}, err
	}
	return say.For(i, class.Conventions(), class.Tips), nil
}

// Short says a kept conclusion in a few words: what was kept in words before there
// were conclusions stays as it is.
func Short(t say.Teller, conclusion json.RawMessage, old string) string {
	var v verdict.Verdict
	if len(conclusion) == 0 || json.Unmarshal(conclusion, &v) != nil {
		return old
	}
	return t.Short(v)
}

// Said says a kept verdict. Errors: one that cannot be read.
func Said(t say.Teller, kept json.RawMessage) (say.Said, error) {
	var v verdict.Verdict
	if err := json.Unmarshal(kept, &v); err != nil {
		return say.Said{}, err
	}
	return t.Verdict(v), nil
}
