-- The safety record reads a few events of hundreds: what was asked, consented to and begun. Its
-- order is that of the reading, so that nothing is sorted.
-- +goose Up
create index visit_event_safety on visit_event (practice_id, client_id, received_at, visit_id, version)
    where verdict = 'accepted' and type in ('visit-opened', 'screening-answered', 'screening-cleared',
        'consent-recorded', 'event-undone', 'hold-started');

-- +goose Down
drop index visit_event_safety;
