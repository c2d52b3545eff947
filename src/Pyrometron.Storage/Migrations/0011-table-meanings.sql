-- What somebody has said of the headers and words in tables and logs, so that it is asked once.
CREATE TABLE table_meaning (
    about    TEXT NOT NULL,
    text     TEXT NOT NULL,
    meaning  TEXT NOT NULL,
    PRIMARY KEY (about, text)
) STRICT, WITHOUT ROWID;
