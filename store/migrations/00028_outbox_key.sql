-- What a person's unsent work is sealed with on a device: made of the practice's secret and
-- the person, so that it outlives a sign-out, a new password and the device's own memory.
-- +goose Up
alter table practice add column outbox_secret bytea not null
	default decode(replace(gen_random_uuid()::text || gen_random_uuid()::text, '-', ''), 'hex');

-- +goose Down
alter table practice drop column outbox_secret;
