package store_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"earlychorus/server/store"
	"earlychorus/server/store/storetest"
)

// Each role reaches its own, and for what is out of reach it is as if it were not
// there.
func TestTheDoorShowsEachRoleItsOwn(t *testing.T) {
	s := storetest.Open(t)
	mine, theirs := storetest.NewBand(t, s, "MINE"), storetest.NewBand(t, s, "THEIRS")
	take := mine.Play(t, s, storetest.Played{Step: mine.Step, At: at(mine, 0)})
	askers := map[store.Role]func(storetest.Band) store.Asker{
		store.RoleDirector: func(b storetest.Band) store.Asker {
			return store.Asker{Role: store.RoleDirector, Subject: b.Director.ID}
		},
		store.RolePlayer: func(b storetest.Band) store.Asker {
			return store.Asker{Role: store.RolePlayer, Subject: b.Players[0].ID}
		},
	}
	for _, role := range []store.Role{store.RoleAssistant, store.RoleSubstitute, store.RoleFamily} {
		askers[role] = func(b storetest.Band) store.Asker { return byPass(t, s, b, role) }
	}
	for _, role := range store.Roles() {
		as, known := askers[role]
		require.True(t, known, "a new role, %s: say here what reaches its own class", role)
		inside, outside := as(mine), as(theirs)
		if role == store.RoleFamily {
			followsOne(t, s, inside, mine, theirs)
			continue
		}

		class, err := s.ClassFor(t.Context(), inside, mine.Class.ID)
		require.NoError(t, err, role)
		assert.Equal(t, mine.Class.Name, class.Name, role)
		assert.NotEmpty(t, class.School.Name, role)
		_, err = s.ClassFor(t.Context(), outside, mine.Class.ID)
		assert.ErrorIs(t, err, store.ErrNotFound, role)
		_, err = s.ClassFor(t.Context(), inside, "no number")
		assert.ErrorIs(t, err, store.ErrNotFound, role)

		classes, err := s.ClassesFor(t.Context(), inside)
		require.NoError(t, err, role)
		assert.Len(t, classes, 1, role)

		got, err := s.TakeFor(t.Context(), inside, take)
		require.NoError(t, err, role)
		assert.Equal(t, mine.Players[0].ID, got.PlayerID, role)
		_, err = s.TakeFor(t.Context(), outside, take)
		assert.ErrorIs(t, err, store.ErrNotFound, role)
	}
	classmate := store.Asker{Role: store.RolePlayer, Subject: mine.Players[1].ID}
	_, err := s.TakeFor(t.Context(), classmate, take)
	assert.ErrorIs(t, err, store.ErrNotFound, "a player sees one's own takes only")
}

// byPass is somebody who came in by a pass until tomorrow; a family's child is the first player.
func byPass(t *testing.T, s *store.Store, b storetest.Band, role store.Role) store.Asker {
	t.Helper()
	p := store.Pass{
		ID:      store.NewID(),
		Role:    role,
		ClassID: b.Class.ID,
		Name:    "Somebody",
		Hears:   role != store.RoleFamily,
		MadeAt:  time.Now(),
		LastDay: time.Now(),
		EndsAt:  time.Now().AddDate(0, 0, 1),
	}
	if role == store.RoleFamily {
		p.PlayerID = &b.Players[0].ID
	}
	require.NoError(t, s.AddPass(t.Context(), p, p.ID))
	return store.Asker{Role: role, Subject: p.ID}
}

// followsOne is what a family reaches: one player, no class, no take.
func followsOne(t *testing.T, s *store.Store, family store.Asker, mine, theirs storetest.Band) {
	t.Helper()
	p, err := s.PlayerFor(t.Context(), family, mine.Players[0].ID)
	require.NoError(t, err)
	assert.Equal(t, mine.Players[0].ID, p.ID)
	for _, other := range []string{mine.Players[1].ID, theirs.Players[0].ID, "no number"} {
		_, err = s.PlayerFor(t.Context(), family, other)
		assert.ErrorIs(t, err, store.ErrNotFound)
	}
	_, err = s.ClassFor(t.Context(), family, mine.Class.ID)
	assert.ErrorIs(t, err, store.ErrNotFound)
}

func TestNobodyReachesNothing(t *testing.T) {
	s := storetest.Open(t)
	b := storetest.NewBand(t, s, "NOBODY")
	for _, who := range []store.Asker{{}, {Role: "janitor", Subject: b.Director.ID}, {Role: store.RoleDirector}} {
		for _, d := range []store.Deed{store.DirectClasses, store.Practise, store.SeeTakes, store.SeeFullNames} {
			assert.False(t, who.May(d), "%v %s", who, d)
		}
		_, err := s.ClassFor(t.Context(), who, b.Class.ID)
		assert.ErrorIs(t, err, store.ErrNotFound)
		classes, err := s.ClassesFor(t.Context(), who)
		require.NoError(t, err)
		assert.Empty(t, classes)
		_, err = s.Oneself(t.Context(), who)
		assert.ErrorIs(t, err, store.ErrNotFound)
	}
}
