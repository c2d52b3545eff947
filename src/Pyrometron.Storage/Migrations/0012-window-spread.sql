-- A reading that was condensed from a log says from how many samples, and how far they spread.
ALTER TABLE reading ADD COLUMN samples INTEGER;
ALTER TABLE reading ADD COLUMN spread_k REAL;
