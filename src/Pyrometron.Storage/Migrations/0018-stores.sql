-- What the stores keep. Kind, viscosity and nature are words; amounts are in the unit of the kind.
CREATE TABLE product (
    id INTEGER PRIMARY KEY,
    code TEXT NOT NULL UNIQUE,
    kind TEXT NOT NULL,
    name TEXT NOT NULL,
    conductivity REAL,
    density REAL,
    viscosity TEXT,
    nature TEXT,
    abrasive INTEGER NOT NULL,
    needs_warming INTEGER NOT NULL,
    not_on_aluminium INTEGER NOT NULL,
    thickness_mm REAL,
    sheet_width_mm REAL,
    sheet_height_mm REAL,
    most_compression REAL,
    strength_percent REAL,
    shelf_months INTEGER,
    open_months INTEGER,
    note TEXT,
    pack_amount REAL NOT NULL CHECK (pack_amount > 0),
    pack_price REAL,
    lead_days INTEGER NOT NULL,
    low_at REAL
);

-- The models that a product is for; none: for any.
CREATE TABLE product_fits (
    product_id INTEGER NOT NULL REFERENCES product ON DELETE CASCADE,
    model TEXT NOT NULL
);

-- What came in together. Width and height are of pads: off-cuts are smaller than their product's sheets.
CREATE TABLE lot (
    id INTEGER PRIMARY KEY,
    product_id INTEGER NOT NULL REFERENCES product,
    batch TEXT,
    place TEXT NOT NULL,
    came_on TEXT NOT NULL,
    opened_on TEXT,
    expires_on TEXT,
    price_per_unit REAL,
    width_mm REAL,
    height_mm REAL,
    bad_because TEXT
);

-- Every change of a lot's amount; what is left is their sum.
CREATE TABLE stock_move (
    id INTEGER PRIMARY KEY,
    lot_id INTEGER NOT NULL REFERENCES lot,
    kind TEXT NOT NULL,
    amount REAL NOT NULL,
    at TEXT NOT NULL,
    job_id INTEGER REFERENCES job,
    actor_id INTEGER NOT NULL REFERENCES actor,
    note TEXT
);

CREATE INDEX stock_move_lot ON stock_move (lot_id);

CREATE INDEX stock_move_job ON stock_move (job_id) WHERE job_id IS NOT NULL;

-- Pads that were cut ahead for a machine; ready until a job has used them.
CREATE TABLE cut_pads (
    id INTEGER PRIMARY KEY,
    asset_id INTEGER NOT NULL REFERENCES asset ON DELETE CASCADE,
    lot_id INTEGER NOT NULL REFERENCES lot,
    thickness_mm REAL NOT NULL,
    count INTEGER NOT NULL,
    job_id INTEGER REFERENCES job
);

CREATE INDEX cut_pads_asset ON cut_pads (asset_id);
