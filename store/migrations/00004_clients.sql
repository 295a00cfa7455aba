-- +goose Up
-- Typing errors in names are forgiven by trigrams (a trusted extension).
create extension if not exists pg_trgm;
alter table client
    add column dominant_hand     text not null default '' check (dominant_hand in ('', 'left', 'right', 'both')),
    add column phone             text not null default '',
    add column email             text not null default '',
    add column emergency_contact text not null default '',
    add column guardian          text not null default '',
    add column archived_at       timestamptz;

-- +goose Down
alter table client drop column dominant_hand, drop column phone, drop column email, drop column emergency_contact, drop column guardian, drop column archived_at;
