-- Whether machines belong to others, and whether damage done by a job is told; null where the house has set nothing.
ALTER TABLE policy ADD COLUMN others_machines INTEGER;
ALTER TABLE policy ADD COLUMN tells_damage INTEGER;
