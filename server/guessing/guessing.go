// Package guessing makes guessing hopeless without locking anybody out: wrong tries cost
// growing waits, counted in the database for what is guessed at, and a device that has
// signed somebody in before has waits of its own.
package guessing

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
	"net/netip"
	"time"

	"earlychorus/server/store"
)

// Budgets: how many wrong tries are free, and what the next ones cost.
var (
	// account is one person's, from devices nobody knows: about a hundred a day.
	account = store.Budget{
		Free:   5,
		First:  15 * time.Second,
		Most:   15 * time.Minute,
		Forget: 24 * time.Hour,
	}
	// known is one person's, from a device that signed them in before: a child that mistypes
	// waits seconds, whatever others do.
	known = store.Budget{
		Free:   5,
		First:  5 * time.Second,
		Most:   5 * time.Minute,
		Forget: time.Hour,
	}
	// class is all players' of a class together, from devices nobody knows: a class of
	// thirty does not fail fifteen hundred times a day.
	class = store.Budget{
		Free:   60,
		First:  time.Second,
		Most:   time.Minute,
		Forget: 24 * time.Hour,
	}
	// network is one network's: a whole school shares one, so it waits seconds at most.
	network = store.Budget{
		Free:   100,
		First:  time.Second,
		Most:   20 * time.Second,
		Forget: time.Hour,
	}
	// codes are class codes that no class has, by network.
	codes = store.Budget{
		Free:   30,
		First:  2 * time.Second,
		Most:   time.Minute,
		Forget: time.Hour,
	}
)

// Guard counts tries.
type Guard struct{ Store *store.Store }

// Try is a try that was counted, until it turns out right.
type Try struct {
	guard Guard
	keys  []string
}

// counted is what a try counts for.
type counted struct {
	key string
	of  store.Budget
}

// Player counts a try at a player's PIN. wait tells that it may not be made yet, and for
// how long.
func (g Guard) Player(
	ctx context.Context, p store.Player, device string, from netip.Addr, now time.Time,
) (try Try, wait time.Duration, err error) {
	return g.person(ctx, "player:"+p.ID, p.ID, device, now, counted{"class:" + p.ClassID, class}, byNetwork(from))
}

// Director counts a try at a director's password.
func (g Guard) Director(
	ctx context.Context, id, device string, from netip.Addr, now time.Time,
) (try Try, wait time.Duration, err error) {
	return g.person(ctx, "director:"+id, id, device, now, byNetwork(from))
}

// Nobody counts a try at an account that there is not, in every way as if there were.
func (g Guard) Nobody(
	ctx context.Context, name string, from netip.Addr, now time.Time,
) (try Try, wait time.Duration, err error) {
	return g.count(ctx, now, counted{"nobody:" + digest(name), account}, byNetwork(from))
}

// Code counts a try at a class's code.
func (g Guard) Code(ctx context.Context, from netip.Addr, now time.Time) (try Try, wait time.Duration, err error) {
	return g.count(ctx, now, counted{"codes:" + networkOf(from), codes})
}

// person counts a try at somebody's secret.
func (g Guard) person(
	ctx context.Context, key, subject, device string, now time.Time, strangers ...counted,
) (Try, time.Duration, error) {
	ours, err := g.Store.KnowsDevice(ctx, digest(device), subject)
	if err != nil {
		return Try{}, 0, err
	}
	if device != "" && ours {
		return g.count(ctx, now, counted{key + "/" + digest(device), known})
	}
	return g.count(ctx, now, append([]counted{{key, account}}, strangers...)...)
}

// count counts a try for everything it is one at, as far as it may be made.
func (g Guard) count(ctx context.Context, now time.Time, all ...counted) (Try, time.Duration, error) {
	t := Try{guard: g}
	for _, c := range all {
		wait, err := g.Store.CountTry(ctx, c.key, c.of, now)
		if err != nil || wait > 0 {
			return Try{}, wait, err
		}
		t.keys = append(t.keys, c.key)
	}
	return t, 0, nil
}

// Right gives the try back: only wrong ones count.
func (t Try) Right(ctx context.Context) error { return t.guard.Store.GiveBackTry(ctx, t.keys) }

// Remember knows a device from now on as one that signs somebody in.
func (g Guard) Remember(ctx context.Context, device, subject string, now time.Time) error {
	return g.Store.KnowDevice(ctx, digest(device), subject, now)
}

// Forgive forgets the wrong tries at somebody, who has a new secret.
func (g Guard) Forgive(ctx context.Context, playerIDs ...string) error {
	return g.Store.ForgetTries(ctx, playerIDs)
}

// OfClass returns how many wrong PINs strangers tried in a class of late.
func (g Guard) OfClass(ctx context.Context, classID string, now time.Time) (int, error) {
	return g.Store.TriesAt(ctx, "class:"+classID, now.Add(-class.Forget))
}

func byNetwork(from netip.Addr) counted { return counted{"network:" + networkOf(from), network} }

// networkOf is the network an address is of: a household's or a school's share one.
func networkOf(from netip.Addr) string {
	bits := 32
	if from.Is6() && !from.Is4In6() {
		bits = 64
	}
	p, err := from.Unmap().Prefix(bits)
	if err != nil {
		return "unknown"
	}
	return digest(p.String()) // no addresses are kept
}

// digest hides what a key is made of.
func digest(text string) string {
	sum := sha256.Sum256([]byte(text))
	return hex.EncodeToString(sum[:16])
}
