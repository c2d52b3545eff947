-- From where on the network somebody changed something; null for the program itself, and for what was changed before.
ALTER TABLE change ADD COLUMN address TEXT;
