package store

import (
	"context"
	"slices"

	"gorm.io/gorm"
)

// Role is what somebody is here as.
type Role string

const (
	Nobody       Role = ""
	RoleDirector Role = "director"
	RolePlayer   Role = "player"

	// These come in by a pass.
	RoleAssistant  Role = "assistant"
	RoleSubstitute Role = "substitute"
	RoleFamily     Role = "family"
)

// Deed is something that some roles may do and others not.
type Deed string

const (
	DirectClasses Deed = "direct classes" // plan for, hear and change the classes in reach
	SeeClasses    Deed = "see classes"    // the day's board, and play with the class; change nothing
	FollowPlayers Deed = "follow players" // how the players in reach have grown, and what was said; no recording
	Practise      Deed = "practise"       // play and hand in one's own takes
	SeeTakes      Deed = "see takes"      // of the players in reach
	SeeFullNames  Deed = "see full names" // of the players in reach; others see an initial
	Administer    Deed = "administer"     // the schools in reach: people and what was done, and no recording
)

// role is a row of the table of roles: what it may do, and how far it reaches.
// Reach is SQL that selects the ids in reach of one subject, whose id is its
// only argument.
type role struct {
	role    Role
	may     []Deed
	classes string
	players string
	schools string
}

// roles lists everyone there is. A new role is a row here, a way to sign in, and a
// page to land on.
var roles = []role{
	{
		role:    RoleDirector,
		may:     []Deed{DirectClasses, SeeClasses, SeeTakes, SeeFullNames, Administer},
		classes: "SELECT class_id FROM class_director WHERE director_id = ?",
		players: "SELECT p.id FROM player p JOIN class_director cd ON cd.class_id = p.class_id AND cd.director_id = ?",
		schools: "SELECT school_id FROM school_person WHERE administers AND director_id = ?",
	},
	{
		role:    RolePlayer,
		may:     []Deed{Practise, SeeTakes},
		classes: "SELECT class_id FROM player WHERE id = ?",
		players: "SELECT id FROM player WHERE id = ?",
	},
	{
		role:    RoleAssistant,
		may:     []Deed{SeeClasses, SeeTakes, SeeFullNames},
		classes: passClasses,
		players: passPlayers,
	},
	{
		// Hears nobody, unless the pass says so.
		role:    RoleSubstitute,
		may:     []Deed{SeeClasses, SeeTakes, SeeFullNames},
		classes: passClasses,
		players: passPlayers,
	},
	{
		role:    RoleFamily,
		may:     []Deed{FollowPlayers, SeeFullNames},
		players: "SELECT player_id FROM pass WHERE id = ? AND " + goesOn,
	},
}

const (
	passClasses = "SELECT class_id FROM pass WHERE id = ? AND " + goesOn
	passPlayers = "SELECT q.id FROM player q JOIN pass ON pass.class_id = q.class_id WHERE pass.id = ? AND hears AND " +
		goesOn
)

// Roles lists the roles somebody can be here as.
func Roles() []Role {
	out := make([]Role, len(roles))
	for n, r := range roles {
		out[n] = r.role
	}
	return out
}

// Asker is who asks: a role, and whose it is. The zero Asker is nobody.
type Asker struct {
	Role    Role
	Subject string // id of the director or the player
}

// row is the asker's row of the table; the zero row may nothing and reaches nobody.
func (a Asker) row() role {
	for _, r := range roles {
		if r.role == a.Role && a.Subject != "" {
			return r
		}
	}
	return role{}
}

// Deeds lists what the asker's role may do.
func (a Asker) Deeds() []Deed { return slices.Clone(a.row().may) }

// May reports whether the asker's role may do something at all.
func (a Asker) May(d Deed) bool { return slices.Contains(a.row().may, d) }

// The questions below are the one door: each answers what is in the asker's reach,
// and ErrNotFound for the rest, as if it were not there.

// ClassFor returns a class in the asker's reach, or ErrNotFound.
func (s *Store) ClassFor(ctx context.Context, who Asker, classID string) (Class, error) {
	var c Class
	reach := who.row().classes
	if reach == "" || !IsID(classID) {
		return c, ErrNotFound
	}
	err := s.db.WithContext(ctx).Preload("School").
		Where("id = ? AND id IN ("+reach+")", classID, who.Subject).
		Take(&c).Error
	return c, found(err)
}

// SchoolFor returns a school that the asker administers, or ErrNotFound.
func (s *Store) SchoolFor(ctx context.Context, who Asker, schoolID string) (School, error) {
	var out School
	reach := who.row().schools
	if reach == "" || !IsID(schoolID) {
		return out, ErrNotFound
	}
	err := s.db.WithContext(ctx).Where("id = ? AND id IN ("+reach+")", schoolID, who.Subject).Take(&out).Error
	return out, found(err)
}

// SchoolsFor returns the schools that the asker administers, by name; mostClasses at most.
func (s *Store) SchoolsFor(ctx context.Context, who Asker) (out []School, err error) {
	reach := who.row().schools
	if reach == "" {
		return nil, nil
	}
	err = s.db.WithContext(ctx).
		Where("id IN ("+reach+")", who.Subject).
		Order("name").
		Limit(mostClasses).
		Find(&out).
		Error
	return out, err
}

// ClassesFor returns the classes in the asker's reach, by name, archived ones last;
// mostClasses at most.
func (s *Store) ClassesFor(ctx context.Context, who Asker) ([]Class, error) {
	var out []Class
	reach := who.row().classes
	if reach == "" {
		return nil, nil
	}
	err := s.db.WithContext(ctx).Preload("School").
		Where("id IN ("+reach+")", who.Subject).
		Order("archived_at IS NOT NULL, name").
		Limit(mostClasses).
		Find(&out).Error
	return out, err
}

// PlayerFor returns a player that the asker follows, with class and school, or ErrNotFound.
func (s *Store) PlayerFor(ctx context.Context, who Asker, playerID string) (Player, error) {
	reach := who.row().players
	if reach == "" || !IsID(playerID) || !who.May(FollowPlayers) {
		return Player{}, ErrNotFound
	}
	var p Player
	err := s.db.WithContext(ctx).Preload("Class.School").
		Where("id = ? AND id IN ("+reach+")", playerID, who.Subject).
		Take(&p).Error
	return p, found(err)
}

// TakeFor returns a take in the asker's reach with its player, class and score, or
// ErrNotFound.
func (s *Store) TakeFor(ctx context.Context, who Asker, takeID string) (Take, error) {
	var t Take
	reach := who.row().players
	if reach == "" || !IsID(takeID) || !who.May(SeeTakes) {
		return t, ErrNotFound
	}
	err := withTakes(s.db.WithContext(ctx)).
		Where("id = ? AND player_id IN ("+reach+")", takeID, who.Subject).
		Take(&t).Error
	return t, found(err)
}

// withTakes loads a take with all that its page shows.
func withTakes(db *gorm.DB) *gorm.DB { return db.Preload("Player.Class.School").Preload("Sheet") }

// Oneself returns the player who asks, with class and school, or ErrNotFound for
// anybody else.
func (s *Store) Oneself(ctx context.Context, who Asker) (Player, error) {
	if who.Role != RolePlayer {
		return Player{}, ErrNotFound
	}
	p, err := s.Player(ctx, who.Subject)
	if err == nil && (p.LeftAt != nil || p.Class.ArchivedAt != nil) {
		return Player{}, ErrNotFound
	}
	return p, err
}
