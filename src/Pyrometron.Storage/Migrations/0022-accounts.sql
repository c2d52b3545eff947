-- Who may sign in. No secret stands here that could be read back but the one of the one-time codes, which both sides must know.
CREATE TABLE account (
    id          INTEGER PRIMARY KEY,
    code        TEXT NOT NULL UNIQUE,
    name        TEXT NOT NULL,
    -- Names that read alike are one name.
    alike       TEXT NOT NULL UNIQUE,
    role        TEXT NOT NULL,
    -- Codes of sites, with spaces between them; empty for all.
    sites       TEXT NOT NULL,
    -- Of an owner: tags, as a JSON array.
    machines    TEXT NOT NULL,
    suspended   INTEGER NOT NULL DEFAULT 0 CHECK (suspended IN (0, 1)),
    -- As the hasher wrote it; null until the person has chosen one.
    password    TEXT,
    -- The secret of one-time codes, base 32; null for none. While it is being tried out it stands in totp_offered.
    totp        TEXT,
    totp_offered TEXT,
    -- The last step of 30 s whose code was taken: none is taken twice.
    totp_step   INTEGER NOT NULL DEFAULT 0,
    made_at     TEXT NOT NULL
) STRICT;

-- Links by which a person comes in once: a new one, or one whose password is lost. Only the hash stands here.
CREATE TABLE account_link (
    hash        TEXT PRIMARY KEY,
    account_id  INTEGER NOT NULL REFERENCES account (id) ON DELETE CASCADE,
    until       TEXT NOT NULL
) STRICT;

CREATE TABLE recovery_code (
    account_id  INTEGER NOT NULL REFERENCES account (id) ON DELETE CASCADE,
    hash        TEXT NOT NULL,
    PRIMARY KEY (account_id, hash)
) STRICT;

-- Browsers that are signed in. Only the hash of what their cookie says stands here.
CREATE TABLE session (
    id          INTEGER PRIMARY KEY,
    hash        TEXT NOT NULL UNIQUE,
    account_id  INTEGER NOT NULL REFERENCES account (id) ON DELETE CASCADE,
    device      TEXT NOT NULL,
    address     TEXT NOT NULL,
    begun_at    TEXT NOT NULL,
    seen_at     TEXT NOT NULL,
    until       TEXT NOT NULL
) STRICT;

-- Mistakes at signing in by where they were made: they slow the next attempt.
CREATE TABLE sign_in_mistake (
    source      TEXT PRIMARY KEY,
    count       INTEGER NOT NULL,
    last_at     TEXT NOT NULL
) STRICT;

-- Keys of programs. For a day after a key is renewed the one before it counts too.
CREATE TABLE api_key (
    id          INTEGER PRIMARY KEY,
    name        TEXT NOT NULL UNIQUE,
    scope       TEXT NOT NULL,
    begins      TEXT NOT NULL,
    hash        TEXT NOT NULL UNIQUE,
    before_hash TEXT,
    before_until TEXT,
    made_at     TEXT NOT NULL,
    until       TEXT,
    used_at     TEXT,
    used_from   TEXT
) STRICT;
