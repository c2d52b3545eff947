-- The chance that the machine needed work, as it was stated when the job began.
ALTER TABLE job ADD COLUMN predicted_chance REAL;
