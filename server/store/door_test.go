package store_test

import (
	"testing"

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
	for _, role := range store.Roles() {
		as, known := askers[role]
		require.True(t, known, "a new role, %s: say here what reaches its own class", role)
		inside, outside := as(mine), as(theirs)

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
