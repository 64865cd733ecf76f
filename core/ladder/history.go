package ladder

// Turn is one moment at which a player came to another rung.
type Turn struct {
	Day  string `json:"day" format:"date"`
	Move Move   `json:"move" enum:"up,back,goal,placed"`
	From int    `json:"from" doc:"the rung left"`
	Rung int    `json:"rung" doc:"from 1: the one come to; the last one for a goal"`
}

// MovedTo is what a line of the log did when the director put the player there.
const MovedTo Move = "placed"

// History returns a log's turning points, oldest first: tries that moved nothing
// are left out.
func (r Rules) History(rungs int, log []Entry) []Turn {
	turns := []Turn{}
	s := Start(rungs)
	for _, e := range log {
		before := s.Rung
		var move Move
		s, move = r.Next(s, e)
		switch {
		case e.What == Placed && s.Rung != before:
			turns = append(turns, Turn{e.Day, MovedTo, before, s.Rung})
		case move == Up || move == Goal, move == Back && s.Rung != before:
			turns = append(turns, Turn{e.Day, move, before, s.Rung})
		}
	}
	return turns
}
