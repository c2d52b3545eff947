-- Where machines stand, which there are, what was measured and what was done.

CREATE TABLE site (
    id          INTEGER PRIMARY KEY,
    code        TEXT NOT NULL UNIQUE,
    name        TEXT NOT NULL,
    altitude_m  REAL NOT NULL
) STRICT;

CREATE TABLE zone (
    id               INTEGER PRIMARY KEY,
    site_id          INTEGER NOT NULL REFERENCES site (id),
    code             TEXT NOT NULL UNIQUE,
    name             TEXT NOT NULL,
    dust             TEXT NOT NULL CHECK (dust IN ('clean', 'normal', 'heavy')),
    design_ambient_c REAL NOT NULL
) STRICT;

CREATE TABLE asset (
    id               INTEGER PRIMARY KEY,
    tag              TEXT NOT NULL UNIQUE,
    kind             TEXT NOT NULL CHECK (kind IN ('graphics-card', 'server', 'laptop', 'desktop')),
    model            TEXT NOT NULL,
    zone_id          INTEGER NOT NULL REFERENCES zone (id),
    host_tag         TEXT,
    duty_hours       REAL NOT NULL,
    in_service_since TEXT NOT NULL,
    warranty_until   TEXT
) STRICT;

CREATE INDEX asset_zone ON asset (zone_id);

-- A part keeps its slot for good: readings are stored by slot. One that has left the register has no position.
CREATE TABLE part (
    asset_id  INTEGER NOT NULL REFERENCES asset (id),
    slot      INTEGER NOT NULL CHECK (slot BETWEEN 0 AND 11),
    position  INTEGER,
    name      TEXT NOT NULL,
    limit_c   REAL NOT NULL,
    joint     TEXT NOT NULL CHECK (joint IN ('paste', 'pad')),
    PRIMARY KEY (asset_id, slot),
    UNIQUE (asset_id, name)
) STRICT, WITHOUT ROWID;

CREATE TABLE service (
    id        INTEGER PRIMARY KEY,
    asset_id  INTEGER NOT NULL REFERENCES asset (id),
    date      TEXT NOT NULL,
    level     TEXT NOT NULL,
    UNIQUE (asset_id, date, level)
) STRICT;

-- Names of settings and workloads, once each.
CREATE TABLE label (
    id    INTEGER PRIMARY KEY,
    text  TEXT NOT NULL UNIQUE
) STRICT;

-- One reading window; asset and instant are its identity. NULL is "not measured". p0_c … p11_c are the part slots.
CREATE TABLE reading (
    asset_id   INTEGER NOT NULL REFERENCES asset (id),
    at_ms      INTEGER NOT NULL,
    ambient_c  REAL, outlet_c REAL, power_w REAL, fan_rpm REAL, fan_pct REAL,
    clock_mhz  REAL, throttled REAL, score REAL,
    settings   INTEGER REFERENCES label (id),
    workload   INTEGER REFERENCES label (id),
    fans_rpm   TEXT,
    p0_c REAL, p1_c REAL, p2_c REAL, p3_c REAL, p4_c REAL, p5_c REAL,
    p6_c REAL, p7_c REAL, p8_c REAL, p9_c REAL, p10_c REAL, p11_c REAL,
    PRIMARY KEY (asset_id, at_ms)
) STRICT, WITHOUT ROWID;

-- Facts about this database itself, such as whether its data is the demo's or the user's own.
CREATE TABLE about (
    name   TEXT PRIMARY KEY,
    value  TEXT NOT NULL
) STRICT, WITHOUT ROWID;
