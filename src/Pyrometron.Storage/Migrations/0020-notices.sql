-- What was noticed: a sentence as JSON, the key by which it is known again, and the days on which it was met first and gone.
-- is_news is 0 for what was so when the house began to be watched, and for what follows from something worse.
CREATE TABLE notice (
    id INTEGER PRIMARY KEY,
    kind TEXT NOT NULL,
    key TEXT NOT NULL,
    says TEXT NOT NULL,
    tag TEXT,
    zone TEXT,
    first_on TEXT NOT NULL,
    gone_on TEXT,
    is_news INTEGER NOT NULL,
    made_at TEXT NOT NULL
);

CREATE INDEX notice_of_key ON notice (key);

-- What somebody wants to be told of, and how: kinds are words with spaces between; minutes of their day.
CREATE TABLE subscription (
    person_id INTEGER PRIMARY KEY REFERENCES person ON DELETE CASCADE,
    shown TEXT NOT NULL,
    mailed TEXT NOT NULL,
    called TEXT NOT NULL,
    mail_to TEXT,
    mail_minute INTEGER NOT NULL CHECK (mail_minute BETWEEN 0 AND 1439),
    mail_since TEXT,
    mailed_at TEXT,
    webhook_url TEXT,
    webhook_secret TEXT,
    webhook_since TEXT,
    quiet_from INTEGER CHECK (quiet_from BETWEEN 0 AND 1439),
    quiet_to INTEGER CHECK (quiet_to BETWEEN 0 AND 1439)
);

-- What was sent, or is to be: one mail, or one call. Its message keeps its name through all attempts.
CREATE TABLE delivery (
    id INTEGER PRIMARY KEY,
    person_id INTEGER NOT NULL REFERENCES person ON DELETE CASCADE,
    channel TEXT NOT NULL,
    message TEXT NOT NULL UNIQUE,
    made_at TEXT NOT NULL,
    state TEXT NOT NULL,
    attempts INTEGER NOT NULL DEFAULT 0,
    next_at TEXT,
    sent_at TEXT,
    says TEXT
);

-- A notice goes to a person by a channel once; a test goes without notices.
CREATE TABLE delivery_notice (
    person_id INTEGER NOT NULL REFERENCES person ON DELETE CASCADE,
    channel TEXT NOT NULL,
    notice_id INTEGER NOT NULL REFERENCES notice ON DELETE CASCADE,
    delivery_id INTEGER NOT NULL REFERENCES delivery ON DELETE CASCADE,
    PRIMARY KEY (person_id, channel, notice_id)
);

CREATE INDEX delivery_notice_of_delivery ON delivery_notice (delivery_id);
