-- What is taken in goes at once to its place in the index of names. In a list of its own, which is the
-- default, it is read from end to end by every search for a mistyped name until it is tidied away.
-- +goose Up
alter index client_name_like set (fastupdate = off);
select gin_clean_pending_list('client_name_like');

-- +goose Down
alter index client_name_like reset (fastupdate);
