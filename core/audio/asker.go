package audio

// Asker is whoever waits for what is heard. Every context.Context is one. It is asked for no
// more than this because of the browser's core: with a Context's deadlines come dates, time
// zones and all their formats.
type Asker interface {
	// Err says why nobody waits any more; nil while somebody does.
	Err() error
}

// Patient waits as long as it takes.
type Patient struct{}

// Err is always nil.
func (Patient) Err() error { return nil }
