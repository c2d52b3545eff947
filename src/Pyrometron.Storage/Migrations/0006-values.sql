-- What hours, machines and electricity are worth to the house, and what goes first within one urgency. A house that has kept its rules so far gets the defaults.

ALTER TABLE policy ADD COLUMN precedence TEXT NOT NULL DEFAULT 'evidence';
ALTER TABLE policy ADD COLUMN currency TEXT NOT NULL DEFAULT 'EUR';
ALTER TABLE policy ADD COLUMN technician_hour REAL NOT NULL DEFAULT 45;
ALTER TABLE policy ADD COLUMN kilowatt_hour REAL NOT NULL DEFAULT 0.30;
ALTER TABLE policy ADD COLUMN decibel_year REAL NOT NULL DEFAULT 2;
ALTER TABLE policy ADD COLUMN crash_hours REAL NOT NULL DEFAULT 2;
ALTER TABLE policy ADD COLUMN life_years REAL NOT NULL DEFAULT 7;
ALTER TABLE policy ADD COLUMN activation_energy_ev REAL NOT NULL DEFAULT 0.7;
ALTER TABLE policy ADD COLUMN pay_back_years INTEGER NOT NULL DEFAULT 2;

CREATE TABLE kind_value (
    kind          TEXT PRIMARY KEY CHECK (kind IN ('graphics-card', 'server', 'laptop', 'desktop')),
    machine_hour  REAL NOT NULL,
    replacement   REAL NOT NULL
) STRICT;
