-- The same work on many machines. Level and state are words; gone_on_by is who went on before the proof said so.
CREATE TABLE campaign (
    id INTEGER PRIMARY KEY,
    name TEXT NOT NULL,
    level TEXT NOT NULL,
    pilot INTEGER NOT NULL CHECK (pilot > 0),
    least_kelvin REAL NOT NULL CHECK (least_kelvin > 0),
    scatter_kelvin REAL NOT NULL CHECK (scatter_kelvin > 0),
    state TEXT NOT NULL,
    begun_on TEXT NOT NULL,
    due_by TEXT,
    ended_on TEXT,
    ended_because TEXT,
    gone_on_by TEXT
);

-- Its machines in their order, the pilot first.
CREATE TABLE campaign_machine (
    campaign_id INTEGER NOT NULL REFERENCES campaign ON DELETE CASCADE,
    asset_id INTEGER NOT NULL REFERENCES asset ON DELETE CASCADE,
    place INTEGER NOT NULL,
    PRIMARY KEY (campaign_id, asset_id)
);
