package store

import (
	"context"

	"gorm.io/gorm/clause"
)

// SignOn is how a school's people sign in with the accounts they have.
type SignOn struct {
	SchoolID     string `gorm:"primaryKey"`
	School       School
	Issuer       string
	ClientID     string
	ClientSecret string
	Domains      []string `gorm:"serializer:json"` // of addresses that are let in; none: any
	RosterClaim  string   // that says a player's number on the school's list
}

// TableName is the trade's word, with its owner.
func (SignOn) TableName() string { return "school_sign_on" }

// SignOnOf returns a school's, or ErrNotFound.
func (s *Store) SignOnOf(ctx context.Context, schoolID string) (o SignOn, err error) {
	if !IsID(schoolID) {
		return o, ErrNotFound
	}
	err = s.db.WithContext(ctx).Preload("School").Where("school_id = ?", schoolID).Take(&o).Error
	return o, found(err)
}

// MostSignOns is how many schools a page offers to sign on through.
const MostSignOns = 200

// SignOns lists the schools that have one, by name; MostSignOns at most.
func (s *Store) SignOns(ctx context.Context) (out []School, err error) {
	err = s.db.WithContext(ctx).
		Where("id IN (SELECT school_id FROM school_sign_on)").
		Order("name").Limit(MostSignOns).Find(&out).Error
	return out, err
}

// SaveSignOn sets a school's.
func (s *Store) SaveSignOn(ctx context.Context, o SignOn) error {
	if o.Domains == nil {
		o.Domains = []string{}
	}
	return s.db.WithContext(ctx).Clauses(clause.OnConflict{UpdateAll: true}).Omit("School").Create(&o).Error
}

// EndSignOn ends it; passwords and cards go on.
func (s *Store) EndSignOn(ctx context.Context, schoolID string) error {
	return s.db.WithContext(ctx).Exec("DELETE FROM school_sign_on WHERE school_id = ?", schoolID).Error
}

// DirectorOfSchool returns somebody of a school by address, or ErrNotFound.
func (s *Store) DirectorOfSchool(ctx context.Context, schoolID, email string) (d Director, err error) {
	err = s.db.WithContext(ctx).
		Where("email = ? AND id IN (SELECT director_id FROM school_person WHERE school_id = ?)",
			EmailKey(email), schoolID).
		Take(&d).Error
	return d, found(err)
}

// PlayersOfSchool lists whom the school's list knows under a number, in classes that go on;
// mostClasses at most: nobody is in more.
func (s *Store) PlayersOfSchool(ctx context.Context, schoolID, externalID string) (out []Player, err error) {
	if externalID == "" {
		return nil, nil
	}
	err = s.db.WithContext(ctx).Preload("Class").
		Joins("JOIN class c ON c.id = player.class_id AND c.school_id = ? AND c.archived_at IS NULL", schoolID).
		Where("player.external_id = ? AND player.left_at IS NULL", externalID).
		Order("c.name").Limit(mostClasses).Find(&out).Error
	return out, err
}
