-- How large the house was on each day on which the program ran, to tell how fast it grows.
CREATE TABLE size_of_day (
    day             TEXT PRIMARY KEY,
    database_bytes  INTEGER NOT NULL,
    photo_bytes     INTEGER NOT NULL,
    readings        INTEGER NOT NULL,
    changes         INTEGER NOT NULL
) STRICT, WITHOUT ROWID;
