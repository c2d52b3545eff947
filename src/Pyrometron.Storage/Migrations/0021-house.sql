-- By which a house knows its own backups.
INSERT INTO about (name, value) VALUES ('house', lower(hex(randomblob(16)))) ON CONFLICT (name) DO NOTHING;
