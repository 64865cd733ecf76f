package progress

import "earlychorus/core/music"

// TimeFor returns how long a list takes, deciding included.
func TimeFor(list []Excerpt) (all music.Seconds) {
	for _, e := range list {
		all += e.To - e.From + deciding
	}
	return all
}
