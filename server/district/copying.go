package district

import (
	"context"
	"encoding/json"

	"github.com/jackc/pgx/v5"
)

// copy streams rows into a table.
func (s *seeding) copy(ctx context.Context, table string, columns []string, count int, row func(int) []any) error {
	n := 0
	_, err := s.db.CopyFrom(ctx, pgx.Identifier{table}, columns, pgx.CopyFromFunc(func() ([]any, error) {
		// Nothing more: the driver asks until it is told so.
		if n == count {
			return nil, nil
		}
		n++
		return row(n - 1), nil
	}))
	return err
}

// analyze has the database count what it holds: plans made on empty tables are the
// wrong ones.
func (s *seeding) analyze(ctx context.Context) error {
	s.say("statistics")
	_, err := s.db.Exec(ctx, "VACUUM ANALYZE")
	return err
}

// withoutIndexes drops the large tables' indexes while they are filled, and builds
// them again: minutes instead of hours.
func (s *seeding) withoutIndexes(fill func(context.Context) error) func(context.Context) error {
	return func(ctx context.Context) error {
		rows, err := s.db.Query(
			ctx,
			"SELECT indexname, indexdef FROM pg_indexes WHERE tablename IN ('take', 'take_note') AND indexname NOT "+
				"LIKE '%pkey'",
		)
		if err != nil {
			return err
		}
		type index struct{ Name, Def string }
		found, err := pgx.CollectRows(rows, pgx.RowToStructByPos[index])
		if err != nil {
			return err
		}
		// The keys are right by how they are made; checking each would take longer than
		// writing all.
		if _, err := s.db.Exec(
			ctx,
			"SET session_replication_role = replica; SET maintenance_work_mem = '1GB'; SET synchronous_commit = off",
		); err != nil {
			return err
		}
		for _, i := range found {
			if _, err := s.db.Exec(ctx, "DROP INDEX "+i.Name); err != nil {
				return err
			}
		}
		if err := s.keepSheets(ctx); err != nil {
			return err
		}
		if err := fill(ctx); err != nil {
			return err
		}
		for _, i := range found {
			s.say("index %s", i.Name)
			if _, err := s.db.Exec(ctx, i.Def); err != nil {
				return err
			}
		}
		return nil
	}
}

// keepSheets keeps each score once. Takes name it by the hash of what it says, as
// real ones do.
func (s *seeding) keepSheets(ctx context.Context) error {
	for _, byPlace := range s.sheets {
		for _, sh := range byPlace {
			if _, err := s.db.Exec(
				ctx,
				"INSERT INTO score (id, body, written) VALUES ($1, $2, $3) ON CONFLICT DO NOTHING",
				sh.id,
				json.RawMessage(sh.body),
				sh.written,
			); err != nil {
				return err
			}
		}
	}
	return nil
}
