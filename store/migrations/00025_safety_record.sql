-- What protects a client is read from the logs of all visits in the order of arrival, and
-- no more from a table by appointment: docs/safety-record.md. The table stays for older
-- copies of the program until they are gone; nothing here reads or writes it.
-- +goose Up
create index visit_event_protects on visit_event (practice_id, client_id, received_at);
-- Where a hold pressed and whether it was a treatment: two a day at one place.
alter table hold
    add column spot   jsonb,
    add column treats boolean;
-- The birth date before a change that no licensed person has confirmed: the more
-- cautious age counts until then.
alter table client add column born_was date;

-- +goose Down
alter table client drop column born_was;
alter table hold drop column treats, drop column spot;
drop index visit_event_protects;
