PRAGMA foreign_keys = OFF;
BEGIN TRANSACTION;
CREATE TABLE about (
    name   TEXT PRIMARY KEY,
    value  TEXT NOT NULL
) STRICT, WITHOUT ROWID;
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
, retired_on TEXT, retired_reason TEXT) STRICT;
INSERT INTO "asset" VALUES(1,'GC-1','graphics-card','Sorrel',1,NULL,24.0,'2025-01-10',NULL,NULL,NULL);
INSERT INTO "asset" VALUES(2,'GC-2','graphics-card','Sorrel',1,NULL,24.0,'2025-01-10',NULL,NULL,NULL);
INSERT INTO "asset" VALUES(3,'GC-3','graphics-card','Sorrel',1,NULL,24.0,'2025-01-10','2029-01-01',NULL,NULL);
INSERT INTO "asset" VALUES(4,'GC-4','graphics-card','Sorrel',1,NULL,24.0,'2025-01-10',NULL,NULL,NULL);
INSERT INTO "asset" VALUES(5,'GC-5','graphics-card','Sorrel',1,NULL,24.0,'2025-01-10',NULL,NULL,NULL);
INSERT INTO "asset" VALUES(6,'GC-6','graphics-card','Sorrel',1,NULL,24.0,'2025-01-10',NULL,NULL,NULL);
CREATE TABLE asset_change (
    id        INTEGER PRIMARY KEY,
    asset_id  INTEGER NOT NULL REFERENCES asset (id),
    made_at   TEXT NOT NULL,
    field     TEXT NOT NULL,
    before    TEXT,
    after     TEXT
) STRICT;
CREATE TABLE job (
    id                INTEGER PRIMARY KEY,
    asset_id          INTEGER NOT NULL REFERENCES asset (id),
    level             TEXT NOT NULL,
    state             TEXT NOT NULL CHECK (state IN ('open', 'waiting-for-proof', 'proven', 'abandoned')),
    started_at        TEXT NOT NULL,
    work_done_at      TEXT,
    closed_at         TEXT,
    verdict           TEXT,
    service_id        INTEGER REFERENCES service (id),
    version           INTEGER NOT NULL DEFAULT 1
, started_level TEXT, fan TEXT, warranty_until TEXT, predicted_cause TEXT, predicted_service TEXT, predicted_kelvin REAL, found_causes TEXT, recheck_due TEXT, rechecked_at TEXT) STRICT;
INSERT INTO "job" VALUES(1,1,'repaste','proven','2026-11-26T23:25:46.632Z','2026-11-26T23:25:47.724Z','2026-11-26T23:25:47.747Z','{"outcome":"improved","parts":[{"part":"core","outcome":"improved","changeKelvin":-16,"uncertaintyKelvin":3.27,"rawChangeCelsius":-16},{"part":"memory","outcome":"improved","changeKelvin":-10,"uncertaintyKelvin":3.27,"rawChangeCelsius":-10}],"reasons":[],"advice":[]}',8,83,'repaste',NULL,NULL,'none',NULL,0.0,'paste fan dust','2026-12-03T23:25:47.724Z','2026-11-26T23:25:47.775Z');
INSERT INTO "job" VALUES(2,2,'repad','waiting-for-proof','2026-11-26T23:25:47.788Z','2026-11-26T23:25:48.004Z',NULL,NULL,9,33,'dust-out',NULL,NULL,'none',NULL,0.0,'pads paste dust','2026-12-03T23:25:48.004Z',NULL);
INSERT INTO "job" VALUES(3,3,'blow-out','abandoned','2026-11-26T23:25:48.013Z',NULL,'2026-11-26T23:25:48.024Z',NULL,NULL,3,'blow-out',NULL,'2029-01-01','none',NULL,0.0,NULL,NULL,NULL);
INSERT INTO "job" VALUES(4,4,'dust-out','open','2026-11-26T23:25:48.029Z',NULL,NULL,NULL,NULL,16,'dust-out',NULL,NULL,'none',NULL,0.0,'dust',NULL,NULL);
CREATE TABLE job_entry (
    id         INTEGER PRIMARY KEY,
    job_id     INTEGER NOT NULL REFERENCES job (id),
    key        TEXT NOT NULL UNIQUE,
    version    INTEGER NOT NULL,
    subject    TEXT,
    kind       TEXT NOT NULL,
    device     TEXT NOT NULL,
    by         TEXT,
    made_at    TEXT NOT NULL,
    stored_at  TEXT NOT NULL,
    entry      TEXT NOT NULL,
    UNIQUE (job_id, version)
) STRICT;
INSERT INTO "job_entry" VALUES(1,1,'5613ee81a0c842e0ac7a1beb7d03b735',2,'complaint','complaint-recorded','phone','M. Larkspur','2026-11-26T23:25:46.811Z','2026-11-26T23:25:46.842Z','{"kind":"complaint-recorded","what":"crashes","load":"rendering","minutesToFailure":9,"reproduced":true}');
INSERT INTO "job_entry" VALUES(2,1,'5bdd258f3dae46368693e663076c4071',3,'run Before','run-measured','phone','M. Larkspur','2026-11-26T23:25:46.869Z','2026-11-26T23:25:46.883Z','{"kind":"run-measured","phase":"before","run":{"workload":"steady","minutes":20,"ambientCelsius":25,"ambientSpreadKelvin":null,"fan":{"mode":"fixed","percent":60,"rpm":1900},"settings":"stock","powerWatts":220,"clockMhz":null,"score":null,"throttled":false,"parts":[{"part":"core","celsius":90,"resolutionKelvin":1,"maximumCelsius":null},{"part":"memory","celsius":80,"resolutionKelvin":1,"maximumCelsius":null}],"position":null,"failedAfterMinutes":null}}');
INSERT INTO "job_entry" VALUES(3,1,'40a57b2986ec4e99b00b673c6d04bd76',4,'run Before','run-voided','phone','M. Larkspur','2026-11-26T23:25:46.895Z','2026-11-26T23:25:46.899Z','{"kind":"run-voided","phase":"before","reason":"door open"}');
INSERT INTO "job_entry" VALUES(4,1,'2e0dc1d52a7c41589591ee139fdf159c',5,'run Before','run-measured','phone','M. Larkspur','2026-11-26T23:25:46.904Z','2026-11-26T23:25:46.906Z','{"kind":"run-measured","phase":"before","run":{"workload":"steady","minutes":20,"ambientCelsius":25,"ambientSpreadKelvin":null,"fan":{"mode":"fixed","percent":60,"rpm":1900},"settings":"stock","powerWatts":220,"clockMhz":null,"score":null,"throttled":false,"parts":[{"part":"core","celsius":88,"resolutionKelvin":1,"maximumCelsius":null},{"part":"memory","celsius":84,"resolutionKelvin":1,"maximumCelsius":null}],"position":"propped","failedAfterMinutes":null}}');
INSERT INTO "job_entry" VALUES(5,1,'465f5c46e7444d338f664c1cee3d6722',6,'step prepare','step-done','phone','M. Larkspur','2026-11-26T23:25:46.913Z','2026-11-26T23:25:46.919Z','{"kind":"step-done","step":"prepare","checks":[]}');
INSERT INTO "job_entry" VALUES(6,1,'a84d62a01bba447ca9175d1a947fb25a',7,'step prepare','step-undone','phone','M. Larkspur','2026-11-26T23:25:46.926Z','2026-11-26T23:25:46.930Z','{"kind":"step-undone","step":"prepare"}');
INSERT INTO "job_entry" VALUES(7,1,'ea4cef2ec16b4e17bbb0ff70ca90f131',8,'finding FanNoise','found','phone','M. Larkspur','2026-11-26T23:25:46.945Z','2026-11-26T23:25:46.962Z','{"kind":"found","about":"fan-noise","grade":"rattles","note":"left one"}');
INSERT INTO "job_entry" VALUES(8,1,'da5f73c5a37c4a66814c803ce185be3e',9,'card Rinse the dust mesh','step-added','phone','M. Larkspur','2026-11-26T23:25:46.977Z','2026-11-26T23:25:46.980Z','{"kind":"step-added","stage":"clean","do":"Rinse the dust mesh"}');
INSERT INTO "job_entry" VALUES(9,1,'cd2baf96baea46eaa7347ee34a44f337',10,'step prepare','step-done','phone','M. Larkspur','2026-11-26T23:25:46.985Z','2026-11-26T23:25:46.987Z','{"kind":"step-done","step":"prepare","checks":[]}');
INSERT INTO "job_entry" VALUES(10,1,'d451d3f515994ad5a1f1fb005f3605e6',11,'step owner-told','step-done','phone','M. Larkspur','2026-11-26T23:25:46.992Z','2026-11-26T23:25:46.995Z','{"kind":"step-done","step":"owner-told","checks":["Its work is moved off","Its owner knows"]}');
INSERT INTO "job_entry" VALUES(11,1,'137d5c4294eb4292b22630049be0c092',12,'step power-off','step-done','phone','M. Larkspur','2026-11-26T23:25:46.999Z','2026-11-26T23:25:47.002Z','{"kind":"step-done","step":"power-off","checks":["Its host is off, not asleep","Every mains plug is out"]}');
INSERT INTO "job_entry" VALUES(12,1,'f5c0649ede104b93bb51e20d45519656',13,'timer drain','timer-started','phone','M. Larkspur','2026-11-26T23:21:17.006Z','2026-11-26T23:25:47.016Z','{"kind":"timer-started","timer":"drain","seconds":1}');
INSERT INTO "job_entry" VALUES(13,1,'9d6d208bb60e4659a88399edd614229c',14,'step drain','step-done','phone','M. Larkspur','2026-11-26T23:25:47.022Z','2026-11-26T23:25:47.025Z','{"kind":"step-done","step":"drain","checks":[]}');
INSERT INTO "job_entry" VALUES(14,1,'52a4b5096dd649528cfe41e011f51086',15,'step ground','step-done','phone','M. Larkspur','2026-11-26T23:25:47.030Z','2026-11-26T23:25:47.033Z','{"kind":"step-done","step":"ground","checks":[]}');
INSERT INTO "job_entry" VALUES(15,1,'02f0f37ff9e24433976c2477cad39975',16,'step screws-out','step-done','phone','M. Larkspur','2026-11-26T23:25:47.037Z','2026-11-26T23:25:47.039Z','{"kind":"step-done","step":"screws-out","checks":[]}');
INSERT INTO "job_entry" VALUES(16,1,'ff97fb3c4c424ccfa666d6965e86fc22',17,'step way-round','step-done','phone','M. Larkspur','2026-11-26T23:25:47.043Z','2026-11-26T23:25:47.046Z','{"kind":"step-done","step":"way-round","checks":[]}');
INSERT INTO "job_entry" VALUES(17,1,'dc13b8eb42a644ffa08d72b2ed7dfb43',18,'step leads-off','step-done','phone','M. Larkspur','2026-11-26T23:25:47.050Z','2026-11-26T23:25:47.053Z','{"kind":"step-done","step":"leads-off","checks":[]}');
INSERT INTO "job_entry" VALUES(18,1,'9d05c92a27c54453a047372cdec5790a',19,'step cooler-off','step-done','phone','M. Larkspur','2026-11-26T23:25:47.057Z','2026-11-26T23:25:47.061Z','{"kind":"step-done","step":"cooler-off","checks":[]}');
INSERT INTO "job_entry" VALUES(19,1,'874f1b3681a747a180ddb97c5d663368',20,'finding Dust','found','phone','M. Larkspur','2026-11-26T23:25:47.066Z','2026-11-26T23:25:47.069Z','{"kind":"found","about":"dust","grade":"3","note":null}');
INSERT INTO "job_entry" VALUES(20,1,'48292dc2967c446aa602a5aee9328b22',21,'step inspect','step-done','phone','M. Larkspur','2026-11-26T23:25:47.074Z','2026-11-26T23:25:47.081Z','{"kind":"step-done","step":"inspect","checks":[]}');
INSERT INTO "job_entry" VALUES(21,1,'4c01f9fe6dd94cfe820d0dfe8de3830f',22,'finding Paste','found','phone','M. Larkspur','2026-11-26T23:25:47.086Z','2026-11-26T23:25:47.088Z','{"kind":"found","about":"paste","grade":"dry","note":null}');
INSERT INTO "job_entry" VALUES(22,1,'e2c3d7aeb200434fa3b2f13ce26a2786',23,'step inspect-joint','step-done','phone','M. Larkspur','2026-11-26T23:25:47.093Z','2026-11-26T23:25:47.096Z','{"kind":"step-done","step":"inspect-joint","checks":[]}');
INSERT INTO "job_entry" VALUES(23,1,'1049e87c68c74a379ee46f147b5abdd3',24,'step blow','step-done','phone','M. Larkspur','2026-11-26T23:25:47.101Z','2026-11-26T23:25:47.104Z','{"kind":"step-done","step":"blow","checks":[]}');
INSERT INTO "job_entry" VALUES(24,1,'4c7678ababb64ae79df57e7af203a701',25,'step brush','step-done','phone','M. Larkspur','2026-11-26T23:25:47.108Z','2026-11-26T23:25:47.111Z','{"kind":"step-done","step":"brush","checks":[]}');
INSERT INTO "job_entry" VALUES(25,1,'008a786ea9734f7ead602970978df701',26,'step fan-swap','step-done','phone','M. Larkspur','2026-11-26T23:25:47.116Z','2026-11-26T23:25:47.119Z','{"kind":"step-done","step":"fan-swap","checks":[]}');
INSERT INTO "job_entry" VALUES(26,1,'e0ad6fcd03594a3289b25802b60b719d',27,'step paste-off','step-done','phone','M. Larkspur','2026-11-26T23:25:47.124Z','2026-11-26T23:25:47.128Z','{"kind":"step-done","step":"paste-off","checks":["The chip is mirror-clean","The cooler\u0027s face is clean","No fibres are left"]}');
INSERT INTO "job_entry" VALUES(27,1,'21faebe4faf74458b7298688e60230c1',28,'timer alcohol-dry','timer-started','phone','M. Larkspur','2026-11-26T23:21:17.131Z','2026-11-26T23:25:47.136Z','{"kind":"timer-started","timer":"alcohol-dry","seconds":1}');
INSERT INTO "job_entry" VALUES(28,1,'5c161cdad6444410b7ac5b597b440c94',29,'step alcohol-dry','step-done','phone','M. Larkspur','2026-11-26T23:25:47.140Z','2026-11-26T23:25:47.142Z','{"kind":"step-done","step":"alcohol-dry","checks":["Both faces are dry"]}');
INSERT INTO "job_entry" VALUES(29,1,'537beb5ca4514db59ce208cfa468b1ce',30,'step own-1','step-done','phone','M. Larkspur','2026-11-26T23:25:47.146Z','2026-11-26T23:25:47.149Z','{"kind":"step-done","step":"own-1","checks":[]}');
INSERT INTO "job_entry" VALUES(30,1,'fb4f9ed84a304fa7b365cc4d59d19957',31,'step pads-keep','step-done','phone','M. Larkspur','2026-11-26T23:25:47.154Z','2026-11-26T23:25:47.156Z','{"kind":"step-done","step":"pads-keep","checks":[]}');
INSERT INTO "job_entry" VALUES(31,1,'083b5411d32b46738da2b1724ff9ecbd',32,'step paste-on','step-done','phone','M. Larkspur','2026-11-26T23:25:47.161Z','2026-11-26T23:25:47.164Z','{"kind":"step-done","step":"paste-on","checks":[]}');
INSERT INTO "job_entry" VALUES(32,1,'73a24be053834cd590a475a98d845cd5',33,'step cooler-on','step-done','phone','M. Larkspur','2026-11-26T23:25:47.169Z','2026-11-26T23:25:47.173Z','{"kind":"step-done","step":"cooler-on","checks":[]}');
INSERT INTO "job_entry" VALUES(33,1,'9ca149e774074de5bef1eb0f76be2753',34,'step tighten','step-done','phone','M. Larkspur','2026-11-26T23:25:47.178Z','2026-11-26T23:25:47.180Z','{"kind":"step-done","step":"tighten","checks":[]}');
INSERT INTO "job_entry" VALUES(34,1,'d434f67f85d4482e870ca5c88295ef13',35,'step leads-on','step-done','phone','M. Larkspur','2026-11-26T23:25:47.184Z','2026-11-26T23:25:47.188Z','{"kind":"step-done","step":"leads-on","checks":["Every fan lead is plugged"]}');
INSERT INTO "job_entry" VALUES(35,1,'be65286ef1cd4591bc072a3667d8cbf9',36,'step boot-look','step-done','phone','M. Larkspur','2026-11-26T23:25:47.192Z','2026-11-26T23:25:47.196Z','{"kind":"step-done","step":"boot-look","checks":["The card is seen by its host","Every fan turns","Display or link"]}');
INSERT INTO "job_entry" VALUES(36,1,'cd7fe6dfaed348f7ad0a34a38dcd42c6',37,'step screws-in','step-done','phone','M. Larkspur','2026-11-26T23:25:47.200Z','2026-11-26T23:25:47.204Z','{"kind":"step-done","step":"screws-in","checks":[]}');
INSERT INTO "job_entry" VALUES(37,1,'95e187a377ec4732b3a30530c3c5c992',38,'step blow','step-repeated','phone','M. Larkspur','2026-11-26T23:25:47.241Z','2026-11-26T23:25:47.246Z','{"kind":"step-repeated","step":"blow"}');
INSERT INTO "job_entry" VALUES(38,1,'e8cf427c10784e93805dabc9aba66503',39,'step blow~2','step-done','phone','M. Larkspur','2026-11-26T23:25:47.252Z','2026-11-26T23:25:47.255Z','{"kind":"step-done","step":"blow~2","checks":[]}');
INSERT INTO "job_entry" VALUES(39,1,'2860d01f12374e78ae1f397a7a870637',40,'count Screws 6 mm','counted','phone','M. Larkspur','2026-11-26T23:25:47.266Z','2026-11-26T23:25:47.272Z','{"kind":"counted","what":"screws","item":"6 mm","out":4,"in":3}');
INSERT INTO "job_entry" VALUES(40,1,'adeae0791de24d44bc3620a114587df6',41,'excuse Screws','count-excused','phone','M. Larkspur','2026-11-26T23:25:47.283Z','2026-11-26T23:25:47.287Z','{"kind":"count-excused","what":"screws","reason":"one was missing on arrival"}');
INSERT INTO "job_entry" VALUES(41,1,'4dc5a90a8b29426ba25f562ee74b4efd',42,'damage clip broken','damage-found','phone','M. Larkspur','2026-11-26T23:25:47.294Z','2026-11-26T23:25:47.297Z','{"kind":"damage-found","text":"clip broken"}');
INSERT INTO "job_entry" VALUES(42,1,'82e8edfd7ca04e6b936bda78b0cf864a',43,'deviation paste instead of pads on memory','deviation-seen','phone','M. Larkspur','2026-11-26T23:25:47.302Z','2026-11-26T23:25:47.305Z','{"kind":"deviation-seen","text":"paste instead of pads on memory"}');
INSERT INTO "job_entry" VALUES(43,1,'f31c918293fb4e9fbc0f2c8389a116e2',44,NULL,'material-used','phone','M. Larkspur','2026-11-26T23:25:47.313Z','2026-11-26T23:25:47.318Z','{"kind":"material-used","material":"paste-grams","amount":1.5,"thicknessMm":null}');
INSERT INTO "job_entry" VALUES(44,1,'4a8c4a0c06474bbcab6d037740d8fc63',45,NULL,'minutes-booked','phone','M. Larkspur','2026-11-26T23:25:47.328Z','2026-11-26T23:25:47.333Z','{"kind":"minutes-booked","minutes":55}');
INSERT INTO "job_entry" VALUES(45,1,'3101e507445e45c8bbfbe0a727137c30',46,'note','noted','phone','M. Larkspur','2026-11-26T23:25:47.339Z','2026-11-26T23:25:47.344Z','{"kind":"noted","text":"dry, like chalk"}');
INSERT INTO "job_entry" VALUES(46,1,'0cc79e661eee4a62a90d63cc5f0a6b3c',47,'photo 650c38db-200f-4640-b300-f8b0c17e0219','photo-taken','phone','M. Larkspur','2026-11-26T23:25:47.392Z','2026-11-26T23:25:47.399Z','{"kind":"photo-taken","photo":"650c38db-200f-4640-b300-f8b0c17e0219","caption":"Fins","step":"inspect","foundOnOpening":true}');
INSERT INTO "job_entry" VALUES(47,1,'b31f8cca4e93419b84f7916d0b742393',48,'state','work-filed','phone','M. Larkspur','2026-11-26T23:25:47.405Z','2026-11-26T23:25:47.410Z','{"kind":"work-filed"}');
INSERT INTO "job_entry" VALUES(48,1,'6e168b4f807044e28dd6e1d054a89e54',49,'run After','run-measured','phone','M. Larkspur','2026-11-26T23:25:47.435Z','2026-11-26T23:25:47.444Z','{"kind":"run-measured","phase":"after","run":{"workload":"steady","minutes":20,"ambientCelsius":25,"ambientSpreadKelvin":null,"fan":{"mode":"fixed","percent":60,"rpm":1900},"settings":"stock","powerWatts":220,"clockMhz":null,"score":null,"throttled":false,"parts":[{"part":"core","celsius":86,"resolutionKelvin":1,"maximumCelsius":null},{"part":"memory","celsius":83,"resolutionKelvin":1,"maximumCelsius":null}],"position":null,"failedAfterMinutes":null}}');
INSERT INTO "job_entry" VALUES(49,1,'e29405bd140e472bad7842c79446d44b',50,'state','reopened','phone','M. Larkspur','2026-11-26T23:25:47.466Z','2026-11-26T23:25:47.470Z','{"kind":"reopened","roomAlike":true,"fanAlike":true,"settingsAlike":true,"reason":"still a gap"}');
INSERT INTO "job_entry" VALUES(50,1,'a028c84c91f64a48bf8de02806c9c5a9',51,'step owner-told~r2','step-done','phone','M. Larkspur','2026-11-26T23:25:47.475Z','2026-11-26T23:25:47.477Z','{"kind":"step-done","step":"owner-told~r2","checks":["Its work is moved off","Its owner knows"]}');
INSERT INTO "job_entry" VALUES(51,1,'6c960616e62c49f3a7efc3aded630ca3',52,'step power-off~r2','step-done','phone','M. Larkspur','2026-11-26T23:25:47.482Z','2026-11-26T23:25:47.485Z','{"kind":"step-done","step":"power-off~r2","checks":["Its host is off, not asleep","Every mains plug is out"]}');
INSERT INTO "job_entry" VALUES(52,1,'2a5407fcd73542f091281b63e48a241a',53,'timer drain~r2','timer-started','phone','M. Larkspur','2026-11-26T23:21:17.488Z','2026-11-26T23:25:47.491Z','{"kind":"timer-started","timer":"drain~r2","seconds":1}');
INSERT INTO "job_entry" VALUES(53,1,'9d93306375c6448ea2dec04705e67aa4',54,'step drain~r2','step-done','phone','M. Larkspur','2026-11-26T23:25:47.496Z','2026-11-26T23:25:47.499Z','{"kind":"step-done","step":"drain~r2","checks":[]}');
INSERT INTO "job_entry" VALUES(54,1,'ffc90d0e04554c69be124a5de2882934',55,'step ground~r2','step-done','phone','M. Larkspur','2026-11-26T23:25:47.505Z','2026-11-26T23:25:47.508Z','{"kind":"step-done","step":"ground~r2","checks":[]}');
INSERT INTO "job_entry" VALUES(55,1,'30d183883964441ca38041fe0a0b0155',56,'count Screws 6 mm unknown','counted','phone','M. Larkspur','2026-11-26T23:25:47.513Z','2026-11-26T23:25:47.515Z','{"kind":"counted","what":"screws","item":"6 mm unknown","out":4,"in":0}');
INSERT INTO "job_entry" VALUES(56,1,'43816ead73794521880efda34301554e',57,'step screws-out~r2','step-done','phone','M. Larkspur','2026-11-26T23:25:47.520Z','2026-11-26T23:25:47.523Z','{"kind":"step-done","step":"screws-out~r2","checks":[]}');
INSERT INTO "job_entry" VALUES(57,1,'f061a4de7aad4337a4bd3f68b0186b5d',58,'step way-round~r2','step-done','phone','M. Larkspur','2026-11-26T23:25:47.529Z','2026-11-26T23:25:47.531Z','{"kind":"step-done","step":"way-round~r2","checks":[]}');
INSERT INTO "job_entry" VALUES(58,1,'60501c55f7b84fd798a8fd3a3b70c98a',59,'step leads-off~r2','step-done','phone','M. Larkspur','2026-11-26T23:25:47.537Z','2026-11-26T23:25:47.539Z','{"kind":"step-done","step":"leads-off~r2","checks":[]}');
INSERT INTO "job_entry" VALUES(59,1,'8225263e753d4c35b8af89ef4cc1c1d9',60,'step cooler-off~r2','step-done','phone','M. Larkspur','2026-11-26T23:25:47.544Z','2026-11-26T23:25:47.547Z','{"kind":"step-done","step":"cooler-off~r2","checks":[]}');
INSERT INTO "job_entry" VALUES(60,1,'775a3aedbf4b4562b0a8cbf01c585822',61,'finding Dust','found','phone','M. Larkspur','2026-11-26T23:25:47.552Z','2026-11-26T23:25:47.557Z','{"kind":"found","about":"dust","grade":"3","note":null}');
INSERT INTO "job_entry" VALUES(61,1,'79da3038b7ee40d7a8ab422ccb777274',62,'step inspect~r2','step-done','phone','M. Larkspur','2026-11-26T23:25:47.563Z','2026-11-26T23:25:47.566Z','{"kind":"step-done","step":"inspect~r2","checks":[]}');
INSERT INTO "job_entry" VALUES(62,1,'ad0f156326514f45b8ba4fec6b31aeba',63,'finding Paste','found','phone','M. Larkspur','2026-11-26T23:25:47.571Z','2026-11-26T23:25:47.576Z','{"kind":"found","about":"paste","grade":"dry","note":null}');
INSERT INTO "job_entry" VALUES(63,1,'64bd53bcaab947a48a766b72eb3a375e',64,'step inspect-joint~r2','step-done','phone','M. Larkspur','2026-11-26T23:25:47.581Z','2026-11-26T23:25:47.587Z','{"kind":"step-done","step":"inspect-joint~r2","checks":[]}');
INSERT INTO "job_entry" VALUES(64,1,'1a3246702d4c4db8bbba33acb0a5e30b',65,'step blow~r2','step-done','phone','M. Larkspur','2026-11-26T23:25:47.593Z','2026-11-26T23:25:47.596Z','{"kind":"step-done","step":"blow~r2","checks":[]}');
INSERT INTO "job_entry" VALUES(65,1,'c179fa6afca343d4a11b00d0ba0daded',66,'step brush~r2','step-done','phone','M. Larkspur','2026-11-26T23:25:47.601Z','2026-11-26T23:25:47.603Z','{"kind":"step-done","step":"brush~r2","checks":[]}');
INSERT INTO "job_entry" VALUES(66,1,'b5664ace65db41dd804c0c45b94a1a99',67,'step fan-swap~r2','step-done','phone','M. Larkspur','2026-11-26T23:25:47.608Z','2026-11-26T23:25:47.611Z','{"kind":"step-done","step":"fan-swap~r2","checks":[]}');
INSERT INTO "job_entry" VALUES(67,1,'04e702912eb34a659ca19a1c712011b0',68,'step paste-off~r2','step-done','phone','M. Larkspur','2026-11-26T23:25:47.616Z','2026-11-26T23:25:47.619Z','{"kind":"step-done","step":"paste-off~r2","checks":["The chip is mirror-clean","The cooler\u0027s face is clean","No fibres are left"]}');
INSERT INTO "job_entry" VALUES(68,1,'5fca37e1adb44ba198b0b5c4a0514f71',69,'timer alcohol-dry~r2','timer-started','phone','M. Larkspur','2026-11-26T23:21:17.622Z','2026-11-26T23:25:47.628Z','{"kind":"timer-started","timer":"alcohol-dry~r2","seconds":1}');
INSERT INTO "job_entry" VALUES(69,1,'d1f3cdfa6aa54fba851a5feb8d814b73',70,'step alcohol-dry~r2','step-done','phone','M. Larkspur','2026-11-26T23:25:47.634Z','2026-11-26T23:25:47.639Z','{"kind":"step-done","step":"alcohol-dry~r2","checks":["Both faces are dry"]}');
INSERT INTO "job_entry" VALUES(70,1,'7715c160776241e780d055a5c2132862',71,'step pads-keep~r2','step-done','phone','M. Larkspur','2026-11-26T23:25:47.645Z','2026-11-26T23:25:47.648Z','{"kind":"step-done","step":"pads-keep~r2","checks":[]}');
INSERT INTO "job_entry" VALUES(71,1,'0e7a50bb239f4e47b68c2e613eb25e4e',72,'step paste-on~r2','step-done','phone','M. Larkspur','2026-11-26T23:25:47.654Z','2026-11-26T23:25:47.658Z','{"kind":"step-done","step":"paste-on~r2","checks":[]}');
INSERT INTO "job_entry" VALUES(72,1,'26242fdf2da94ca5abde184604a8dce2',73,'step cooler-on~r2','step-done','phone','M. Larkspur','2026-11-26T23:25:47.663Z','2026-11-26T23:25:47.667Z','{"kind":"step-done","step":"cooler-on~r2","checks":[]}');
INSERT INTO "job_entry" VALUES(73,1,'493be08ba5e34f929b8a88498e334c69',74,'step tighten~r2','step-done','phone','M. Larkspur','2026-11-26T23:25:47.672Z','2026-11-26T23:25:47.675Z','{"kind":"step-done","step":"tighten~r2","checks":[]}');
INSERT INTO "job_entry" VALUES(74,1,'f58ef27ac31f4c799b5268dcc1255010',75,'step leads-on~r2','step-done','phone','M. Larkspur','2026-11-26T23:25:47.680Z','2026-11-26T23:25:47.685Z','{"kind":"step-done","step":"leads-on~r2","checks":["Every fan lead is plugged"]}');
INSERT INTO "job_entry" VALUES(75,1,'ce4f1706ae674b34a5da4e5d35657bd5',76,'step boot-look~r2','step-done','phone','M. Larkspur','2026-11-26T23:25:47.691Z','2026-11-26T23:25:47.694Z','{"kind":"step-done","step":"boot-look~r2","checks":["The card is seen by its host","Every fan turns","Display or link"]}');
INSERT INTO "job_entry" VALUES(76,1,'03a9cc366aaf46648ba939b68813640f',77,'count Screws 6 mm unknown','counted','phone','M. Larkspur','2026-11-26T23:25:47.700Z','2026-11-26T23:25:47.706Z','{"kind":"counted","what":"screws","item":"6 mm unknown","out":4,"in":4}');
INSERT INTO "job_entry" VALUES(77,1,'8e895eb337f547c68e2e553551254708',78,'step screws-in~r2','step-done','phone','M. Larkspur','2026-11-26T23:25:47.713Z','2026-11-26T23:25:47.717Z','{"kind":"step-done","step":"screws-in~r2","checks":[]}');
INSERT INTO "job_entry" VALUES(78,1,'5e2f31a576b14201a1ce129356ab13f8',79,'state','work-filed','phone','M. Larkspur','2026-11-26T23:25:47.724Z','2026-11-26T23:25:47.731Z','{"kind":"work-filed"}');
INSERT INTO "job_entry" VALUES(79,1,'8730c88c46ac4f019e356abe503c0e8a',80,'run After','run-measured','phone','M. Larkspur','2026-11-26T23:25:47.738Z','2026-11-26T23:25:47.741Z','{"kind":"run-measured","phase":"after","run":{"workload":"steady","minutes":20,"ambientCelsius":25,"ambientSpreadKelvin":null,"fan":{"mode":"fixed","percent":60,"rpm":1900},"settings":"stock","powerWatts":220,"clockMhz":null,"score":null,"throttled":false,"parts":[{"part":"core","celsius":72,"resolutionKelvin":1,"maximumCelsius":null},{"part":"memory","celsius":74,"resolutionKelvin":1,"maximumCelsius":null}],"position":null,"failedAfterMinutes":null}}');
INSERT INTO "job_entry" VALUES(80,1,'973b6549b3844791b9cb767c36d6a6b9',81,'state','verdict-filed','phone','M. Larkspur','2026-11-26T23:25:47.747Z','2026-11-26T23:25:47.753Z','{"kind":"verdict-filed","fixed":true}');
INSERT INTO "job_entry" VALUES(81,1,'ae886458f10141998a0cac9d884735b6',82,'handed back','handed-back','phone','M. Larkspur','2026-11-26T23:25:47.764Z','2026-11-26T23:25:47.768Z','{"kind":"handed-back","to":"Desk 4","note":"runs quiet"}');
INSERT INTO "job_entry" VALUES(82,1,'79166d9ac46947188f5c433dd702557f',83,'run Recheck','run-measured','phone','M. Larkspur','2026-11-26T23:25:47.775Z','2026-11-26T23:25:47.780Z','{"kind":"run-measured","phase":"recheck","run":{"workload":"steady","minutes":20,"ambientCelsius":25,"ambientSpreadKelvin":null,"fan":{"mode":"fixed","percent":60,"rpm":1900},"settings":"stock","powerWatts":220,"clockMhz":null,"score":null,"throttled":false,"parts":[{"part":"core","celsius":73,"resolutionKelvin":1,"maximumCelsius":null},{"part":"memory","celsius":74,"resolutionKelvin":1,"maximumCelsius":null}],"position":null,"failedAfterMinutes":null}}');
INSERT INTO "job_entry" VALUES(83,2,'fe8ed1dff92340168942b1bcc2b64876',2,'run before','before-excused','phone','M. Larkspur','2026-11-26T23:25:47.795Z','2026-11-26T23:25:47.797Z','{"kind":"before-excused","reason":"does not start"}');
INSERT INTO "job_entry" VALUES(84,2,'7b815f393e264855a9403d8decea0ced',3,'step prepare','step-done','phone','M. Larkspur','2026-11-26T23:25:47.801Z','2026-11-26T23:25:47.803Z','{"kind":"step-done","step":"prepare","checks":[]}');
INSERT INTO "job_entry" VALUES(85,2,'6cff4caf5d154391a0d6bf58edb82498',4,'step owner-told','step-done','phone','M. Larkspur','2026-11-26T23:25:47.806Z','2026-11-26T23:25:47.808Z','{"kind":"step-done","step":"owner-told","checks":["Its work is moved off","Its owner knows"]}');
INSERT INTO "job_entry" VALUES(86,2,'f7160f5273c2428293fef3a22ec7bbca',5,'step power-off','step-done','phone','M. Larkspur','2026-11-26T23:25:47.812Z','2026-11-26T23:25:47.814Z','{"kind":"step-done","step":"power-off","checks":["Its host is off, not asleep","Every mains plug is out"]}');
INSERT INTO "job_entry" VALUES(87,2,'2943c86e22e547bf8016fda7bb327e3c',6,'timer drain','timer-started','phone','M. Larkspur','2026-11-26T23:21:17.816Z','2026-11-26T23:25:47.819Z','{"kind":"timer-started","timer":"drain","seconds":1}');
INSERT INTO "job_entry" VALUES(88,2,'7916e9f12021483f97e52da8389e5482',7,'step drain','step-done','phone','M. Larkspur','2026-11-26T23:25:47.823Z','2026-11-26T23:25:47.825Z','{"kind":"step-done","step":"drain","checks":[]}');
INSERT INTO "job_entry" VALUES(89,2,'b2a9c949304e4023a2500602c7deccaa',8,'step ground','step-done','phone','M. Larkspur','2026-11-26T23:25:47.828Z','2026-11-26T23:25:47.830Z','{"kind":"step-done","step":"ground","checks":[]}');
INSERT INTO "job_entry" VALUES(90,2,'c82b1e5601ac4599912d5f261ab609af',9,'count Screws 6 mm unknown','counted','phone','M. Larkspur','2026-11-26T23:25:47.834Z','2026-11-26T23:25:47.835Z','{"kind":"counted","what":"screws","item":"6 mm unknown","out":4,"in":0}');
INSERT INTO "job_entry" VALUES(91,2,'4f2713e41cde47bca04e9f2b2efbb356',10,'step screws-out','step-done','phone','M. Larkspur','2026-11-26T23:25:47.839Z','2026-11-26T23:25:47.840Z','{"kind":"step-done","step":"screws-out","checks":[]}');
INSERT INTO "job_entry" VALUES(92,2,'2c4b059aa9f7470a9af33486995761c7',11,'step way-round','step-done','phone','M. Larkspur','2026-11-26T23:25:47.844Z','2026-11-26T23:25:47.845Z','{"kind":"step-done","step":"way-round","checks":[]}');
INSERT INTO "job_entry" VALUES(93,2,'59ea91226d954d43b46aa499fe7b5f7f',12,'step leads-off','step-done','phone','M. Larkspur','2026-11-26T23:25:47.848Z','2026-11-26T23:25:47.850Z','{"kind":"step-done","step":"leads-off","checks":[]}');
INSERT INTO "job_entry" VALUES(94,2,'d5d91557990746ffabd732a21bb01f1e',13,'finding Dust','found','phone','M. Larkspur','2026-11-26T23:25:47.853Z','2026-11-26T23:25:47.854Z','{"kind":"found","about":"dust","grade":"3","note":null}');
INSERT INTO "job_entry" VALUES(95,2,'0d230c0bc7fd49228c94d84846247d4f',14,'step inspect','step-done','phone','M. Larkspur','2026-11-26T23:25:47.858Z','2026-11-26T23:25:47.859Z','{"kind":"step-done","step":"inspect","checks":[]}');
INSERT INTO "job_entry" VALUES(96,2,'2c221ef750d74380b50b66a50b6d26b2',15,'finding Pads','found','phone','M. Larkspur','2026-11-26T23:25:47.863Z','2026-11-26T23:25:47.864Z','{"kind":"found","about":"pads","grade":"torn","note":null}');
INSERT INTO "job_entry" VALUES(97,2,'9df3517a5d2c40f39de5b4c2eec7f3fe',16,'level','level-changed','phone','M. Larkspur','2026-11-26T23:25:47.884Z','2026-11-26T23:25:47.887Z','{"kind":"level-changed","level":"repad","reason":"pads torn","fan":null}');
INSERT INTO "job_entry" VALUES(98,2,'28a211b467a842418afc1b2f01465ebc',17,'step cooler-off','step-done','phone','M. Larkspur','2026-11-26T23:25:47.893Z','2026-11-26T23:25:47.894Z','{"kind":"step-done","step":"cooler-off","checks":[]}');
INSERT INTO "job_entry" VALUES(99,2,'ae956790695c4d2eb06c2c14b7813df0',18,'finding Paste','found','phone','M. Larkspur','2026-11-26T23:25:47.898Z','2026-11-26T23:25:47.900Z','{"kind":"found","about":"paste","grade":"dry","note":null}');
INSERT INTO "job_entry" VALUES(100,2,'d139689fe68942a4bd74fa2e126063fd',19,'step inspect-joint','step-done','phone','M. Larkspur','2026-11-26T23:25:47.904Z','2026-11-26T23:25:47.905Z','{"kind":"step-done","step":"inspect-joint","checks":[]}');
INSERT INTO "job_entry" VALUES(101,2,'96c754b7620f4b779b0a8f360165fdfa',20,'step blow','step-done','phone','M. Larkspur','2026-11-26T23:25:47.910Z','2026-11-26T23:25:47.912Z','{"kind":"step-done","step":"blow","checks":[]}');
INSERT INTO "job_entry" VALUES(102,2,'2156b6265e4c4aac90ad9d9933e6ade6',21,'step brush','step-done','phone','M. Larkspur','2026-11-26T23:25:47.916Z','2026-11-26T23:25:47.918Z','{"kind":"step-done","step":"brush","checks":[]}');
INSERT INTO "job_entry" VALUES(103,2,'1535579473d1450696b90298c425fddc',22,'step paste-off','step-done','phone','M. Larkspur','2026-11-26T23:25:47.921Z','2026-11-26T23:25:47.923Z','{"kind":"step-done","step":"paste-off","checks":["The chip is mirror-clean","The cooler\u0027s face is clean","No fibres are left"]}');
INSERT INTO "job_entry" VALUES(104,2,'1877dfd487584b79a1ab80de02bbbe50',23,'timer alcohol-dry','timer-started','phone','M. Larkspur','2026-11-26T23:21:17.926Z','2026-11-26T23:25:47.929Z','{"kind":"timer-started","timer":"alcohol-dry","seconds":1}');
INSERT INTO "job_entry" VALUES(105,2,'f82f447abcca4300b2e5962fa5e6209d',24,'step alcohol-dry','step-done','phone','M. Larkspur','2026-11-26T23:25:47.933Z','2026-11-26T23:25:47.935Z','{"kind":"step-done","step":"alcohol-dry","checks":["Both faces are dry"]}');
INSERT INTO "job_entry" VALUES(106,2,'2af99dad2ae54c75b501f910e176be5b',25,'step pads-on','step-done','phone','M. Larkspur','2026-11-26T23:25:47.958Z','2026-11-26T23:25:47.960Z','{"kind":"step-done","step":"pads-on","checks":["Every chip that had a pad has one","Both films are off each pad"]}');
INSERT INTO "job_entry" VALUES(107,2,'9a14dfabccb7415eb301d13e30359edd',26,'step paste-on','step-done','phone','M. Larkspur','2026-11-26T23:25:47.964Z','2026-11-26T23:25:47.966Z','{"kind":"step-done","step":"paste-on","checks":[]}');
INSERT INTO "job_entry" VALUES(108,2,'b45ad1ea1d9041cea9684f573ee0867b',27,'step cooler-on','step-done','phone','M. Larkspur','2026-11-26T23:25:47.970Z','2026-11-26T23:25:47.972Z','{"kind":"step-done","step":"cooler-on","checks":[]}');
INSERT INTO "job_entry" VALUES(109,2,'6b8dbd9a568744fd928e11332d0269dc',28,'step tighten','step-done','phone','M. Larkspur','2026-11-26T23:25:47.976Z','2026-11-26T23:25:47.978Z','{"kind":"step-done","step":"tighten","checks":[]}');
INSERT INTO "job_entry" VALUES(110,2,'f59cb41f6dea41ceaf6fbc5b61cd7422',29,'step leads-on','step-done','phone','M. Larkspur','2026-11-26T23:25:47.981Z','2026-11-26T23:25:47.983Z','{"kind":"step-done","step":"leads-on","checks":["Every fan lead is plugged"]}');
INSERT INTO "job_entry" VALUES(111,2,'b97f9589896843a4a5671f02d5b6bfa7',30,'step boot-look','step-done','phone','M. Larkspur','2026-11-26T23:25:47.987Z','2026-11-26T23:25:47.989Z','{"kind":"step-done","step":"boot-look","checks":["The card is seen by its host","Every fan turns","Display or link"]}');
INSERT INTO "job_entry" VALUES(112,2,'2fb0075efbc2449f9531247b9ae5ca20',31,'count Screws 6 mm unknown','counted','phone','M. Larkspur','2026-11-26T23:25:47.993Z','2026-11-26T23:25:47.994Z','{"kind":"counted","what":"screws","item":"6 mm unknown","out":4,"in":4}');
INSERT INTO "job_entry" VALUES(113,2,'50a69d5a7ae9475bbbf24f755c3a9df0',32,'step screws-in','step-done','phone','M. Larkspur','2026-11-26T23:25:47.998Z','2026-11-26T23:25:48.000Z','{"kind":"step-done","step":"screws-in","checks":[]}');
INSERT INTO "job_entry" VALUES(114,2,'57c9f40761174480bec1cde6888d3116',33,'state','work-filed','phone','M. Larkspur','2026-11-26T23:25:48.004Z','2026-11-26T23:25:48.006Z','{"kind":"work-filed"}');
INSERT INTO "job_entry" VALUES(115,3,'454514250cb34996a66d0be52b4eeeff',2,'warranty','warranty-answered','phone','M. Larkspur','2026-11-26T23:25:48.019Z','2026-11-26T23:25:48.020Z','{"kind":"warranty-answered","answer":"Seller agreed by letter"}');
INSERT INTO "job_entry" VALUES(116,3,'8036adbab02f4a45ae36d741c9332a71',3,'state','given-up','phone','M. Larkspur','2026-11-26T23:25:48.024Z','2026-11-26T23:25:48.026Z','{"kind":"given-up","reason":"owner took it back"}');
INSERT INTO "job_entry" VALUES(117,4,'6877123d4e5b4abf82b45671f86d6b4e',2,'run Before','run-measured','phone','M. Larkspur','2026-11-26T23:25:48.034Z','2026-11-26T23:25:48.035Z','{"kind":"run-measured","phase":"before","run":{"workload":"steady","minutes":20,"ambientCelsius":25,"ambientSpreadKelvin":null,"fan":{"mode":"fixed","percent":60,"rpm":1900},"settings":"stock","powerWatts":220,"clockMhz":null,"score":null,"throttled":false,"parts":[{"part":"core","celsius":85,"resolutionKelvin":1,"maximumCelsius":null},{"part":"memory","celsius":80,"resolutionKelvin":1,"maximumCelsius":null}],"position":null,"failedAfterMinutes":null}}');
INSERT INTO "job_entry" VALUES(118,4,'b38ba9b2a7934f94951dc05eeb7e5464',3,'timer drain','timer-started','phone','M. Larkspur','2026-11-26T23:25:48.039Z','2026-11-26T23:25:48.040Z','{"kind":"timer-started","timer":"drain","seconds":900}');
INSERT INTO "job_entry" VALUES(119,4,'4425fcc7a55344ddae929cc7856c6adf',4,'timer drain','timer-stopped','phone','M. Larkspur','2026-11-26T23:25:48.044Z','2026-11-26T23:25:48.046Z','{"kind":"timer-stopped","timer":"drain"}');
INSERT INTO "job_entry" VALUES(120,4,'243cef3e96c841b997c0c967998ab682',5,'step prepare','step-skipped','phone','M. Larkspur','2026-11-26T23:26:00.956Z','2026-11-26T23:26:00.958Z','{"kind":"step-skipped","step":"prepare","reason":"done by a colleague"}');
INSERT INTO "job_entry" VALUES(121,4,'879d27389dd542d28b2f3ab01113ee4f',6,'step owner-told','step-done','phone','M. Larkspur','2026-11-26T23:26:00.964Z','2026-11-26T23:26:00.967Z','{"kind":"step-done","step":"owner-told","checks":["Its work is moved off","Its owner knows"]}');
INSERT INTO "job_entry" VALUES(122,4,'6fe2d062b47a423d81ab1f7df91f3d55',7,'step power-off','step-done','phone','M. Larkspur','2026-11-26T23:26:00.974Z','2026-11-26T23:26:00.977Z','{"kind":"step-done","step":"power-off","checks":["Its host is off, not asleep","Every mains plug is out"]}');
INSERT INTO "job_entry" VALUES(123,4,'5063a652dec7483995be415c6458e9d0',8,'timer drain','timer-started','phone','M. Larkspur','2026-11-26T23:21:30.980Z','2026-11-26T23:26:00.983Z','{"kind":"timer-started","timer":"drain","seconds":1}');
INSERT INTO "job_entry" VALUES(124,4,'2363fe40d4e54f0a8d69d8ec60963970',9,'step drain','step-done','phone','M. Larkspur','2026-11-26T23:26:00.987Z','2026-11-26T23:26:00.989Z','{"kind":"step-done","step":"drain","checks":[]}');
INSERT INTO "job_entry" VALUES(125,4,'5ffbd180e99f4e97a7783852b5a051ce',10,'step ground','step-done','phone','M. Larkspur','2026-11-26T23:26:00.993Z','2026-11-26T23:26:00.996Z','{"kind":"step-done","step":"ground","checks":[]}');
INSERT INTO "job_entry" VALUES(126,4,'d1a9c9fc9162441eb0e02a13f7d8f190',11,'count Screws 6 mm unknown','counted','phone','M. Larkspur','2026-11-26T23:26:01.002Z','2026-11-26T23:26:01.004Z','{"kind":"counted","what":"screws","item":"6 mm unknown","out":4,"in":0}');
INSERT INTO "job_entry" VALUES(127,4,'39c0c08e03e144cfb13ed84c51f1fa0d',12,'step screws-out','step-done','phone','M. Larkspur','2026-11-26T23:26:01.010Z','2026-11-26T23:26:01.012Z','{"kind":"step-done","step":"screws-out","checks":[]}');
INSERT INTO "job_entry" VALUES(128,4,'8724acf08bea48f2b6f42145d9b434c8',13,'step way-round','step-done','phone','M. Larkspur','2026-11-26T23:26:01.017Z','2026-11-26T23:26:01.019Z','{"kind":"step-done","step":"way-round","checks":[]}');
INSERT INTO "job_entry" VALUES(129,4,'6c08234e704347fd9f198a7633722bab',14,'step leads-off','step-done','phone','M. Larkspur','2026-11-26T23:26:01.023Z','2026-11-26T23:26:01.026Z','{"kind":"step-done","step":"leads-off","checks":[]}');
INSERT INTO "job_entry" VALUES(130,4,'f5e0eec08a1b401a83f7b6b509d48a99',15,'finding Dust','found','phone','M. Larkspur','2026-11-26T23:26:01.030Z','2026-11-26T23:26:01.032Z','{"kind":"found","about":"dust","grade":"3","note":null}');
INSERT INTO "job_entry" VALUES(131,4,'bad46ab6dab447ecb475f2900bc39970',16,'step inspect','step-done','phone','M. Larkspur','2026-11-26T23:26:01.036Z','2026-11-26T23:26:01.039Z','{"kind":"step-done","step":"inspect","checks":[]}');
CREATE TABLE job_sample (
    job_id  INTEGER NOT NULL REFERENCES job (id),
    at      TEXT NOT NULL,
    sample  TEXT NOT NULL,
    PRIMARY KEY (job_id, at)
) STRICT, WITHOUT ROWID;
CREATE TABLE kind_value (
    kind          TEXT PRIMARY KEY CHECK (kind IN ('graphics-card', 'server', 'laptop', 'desktop')),
    machine_hour  REAL NOT NULL,
    replacement   REAL NOT NULL
) STRICT;
CREATE TABLE label (
    id    INTEGER PRIMARY KEY,
    text  TEXT NOT NULL UNIQUE
) STRICT;
CREATE TABLE model_notes (
    model       TEXT PRIMARY KEY,
    notes       TEXT NOT NULL,
    changed_at  TEXT NOT NULL,
    -- The job that added to them last, or null where a person did.
    job_id      INTEGER REFERENCES job (id),
    version     INTEGER NOT NULL DEFAULT 1
) STRICT;
INSERT INTO "model_notes" VALUES('Sorrel','{"model":"Sorrel","widthMm":250,"heightMm":110,"chip":null,"pattern":null,"screws":[{"number":1,"place":"cover","xMm":12,"yMm":12,"lengthMm":6,"driver":"unknown","order":null,"tray":"6 mm unknown"},{"number":2,"place":"cover","xMm":24,"yMm":12,"lengthMm":6,"driver":"unknown","order":null,"tray":"6 mm unknown"},{"number":3,"place":"cover","xMm":36,"yMm":12,"lengthMm":6,"driver":"unknown","order":null,"tray":"6 mm unknown"},{"number":4,"place":"cover","xMm":48,"yMm":12,"lengthMm":6,"driver":"unknown","order":null,"tray":"6 mm unknown"}],"connectors":[],"pads":[],"fans":[],"clips":[],"traps":[],"protocol":{"load":"steady","minutes":20,"fan":"fixed","fanPercent":60,"settings":"stock","position":"propped"}}','2026-11-26T23:25:47.430Z',1,1);
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
INSERT INTO "part" VALUES(1,0,0,'core',90.0,'paste');
INSERT INTO "part" VALUES(1,1,1,'memory',105.0,'pad');
INSERT INTO "part" VALUES(2,0,0,'core',90.0,'paste');
INSERT INTO "part" VALUES(2,1,1,'memory',105.0,'pad');
INSERT INTO "part" VALUES(3,0,0,'core',90.0,'paste');
INSERT INTO "part" VALUES(3,1,1,'memory',105.0,'pad');
INSERT INTO "part" VALUES(4,0,0,'core',90.0,'paste');
INSERT INTO "part" VALUES(4,1,1,'memory',105.0,'pad');
INSERT INTO "part" VALUES(5,0,0,'core',90.0,'paste');
INSERT INTO "part" VALUES(5,1,1,'memory',105.0,'pad');
INSERT INTO "part" VALUES(6,0,0,'core',90.0,'paste');
INSERT INTO "part" VALUES(6,1,1,'memory',105.0,'pad');
CREATE TABLE photo (
    key      TEXT PRIMARY KEY,
    job_id   INTEGER NOT NULL REFERENCES job (id),
    width    INTEGER NOT NULL,
    height   INTEGER NOT NULL,
    -- JPEG both, made anew from the pixels: nothing of what a camera writes beside them is kept.
    picture  BLOB NOT NULL,
    small    BLOB NOT NULL
) STRICT;
INSERT INTO "photo" VALUES('650c38db200f4640b300f8b0c17e0219',1,8,8,X'FFD8FFE000104A46494600010100000100010000FFDB0043000604040504040605050506060607090E0909080809120D0D0A0E1512161615121414171A211C17181F1914141D271D1F2223252525161C292C28242B21242524FFDB00430106060609080911090911241814182424242424242424242424242424242424242424242424242424242424242424242424242424242424242424242424242424FFC00011080008000803012200021101031101FFC4001500010100000000000000000000000000000005FFC40014100100000000000000000000000000000000FFC40014010100000000000000000000000000000004FFC40014110100000000000000000000000000000000FFDA000C03010002110311003F008001603FFFD9',X'FFD8FFE000104A46494600010100000100010000FFDB0043000604040504040605050506060607090E0909080809120D0D0A0E1512161615121414171A211C17181F1914141D271D1F2223252525161C292C28242B21242524FFDB00430106060609080911090911241814182424242424242424242424242424242424242424242424242424242424242424242424242424242424242424242424242424FFC00011080008000803012200021101031101FFC4001500010100000000000000000000000000000005FFC40014100100000000000000000000000000000000FFC40014010100000000000000000000000000000004FFC40014110100000000000000000000000000000000FFDA000C03010002110311003F008001603FFFD9');
CREATE TABLE policy (
    id                    INTEGER PRIMARY KEY CHECK (id = 1),
    action_margin_kelvin  REAL NOT NULL,
    worth_kelvin          REAL NOT NULL,
    much_kelvin           REAL NOT NULL,
    school                TEXT NOT NULL
, extent TEXT NOT NULL DEFAULT 'least-that-cures', warranty TEXT NOT NULL DEFAULT 'air-only', paste TEXT NOT NULL DEFAULT 'by-model', pads TEXT NOT NULL DEFAULT 'keep-if-elastic', alcohol TEXT NOT NULL DEFAULT 'ninetynine', air TEXT NOT NULL DEFAULT 'compressor', opening TEXT NOT NULL DEFAULT 'reverse-of-numbers', precedence TEXT NOT NULL DEFAULT 'evidence', currency TEXT NOT NULL DEFAULT 'EUR', technician_hour REAL NOT NULL DEFAULT 45, kilowatt_hour REAL NOT NULL DEFAULT 0.30, decibel_year REAL NOT NULL DEFAULT 2, crash_hours REAL NOT NULL DEFAULT 2, life_years REAL NOT NULL DEFAULT 7, activation_energy_ev REAL NOT NULL DEFAULT 0.7, pay_back_years INTEGER NOT NULL DEFAULT 2) STRICT;
CREATE TABLE reading (
    asset_id   INTEGER NOT NULL REFERENCES asset (id),
    at_ms      INTEGER NOT NULL,
    ambient_c  REAL, outlet_c REAL, power_w REAL, fan_rpm REAL, fan_pct REAL,
    clock_mhz  REAL, throttled REAL, score REAL,
    settings   INTEGER REFERENCES label (id),
    workload   INTEGER REFERENCES label (id),
    fans_rpm   TEXT,
    p0_c REAL, p1_c REAL, p2_c REAL, p3_c REAL, p4_c REAL, p5_c REAL,
    p6_c REAL, p7_c REAL, p8_c REAL, p9_c REAL, p10_c REAL, p11_c REAL, amended INTEGER NOT NULL DEFAULT 0,
    PRIMARY KEY (asset_id, at_ms)
) STRICT, WITHOUT ROWID;
CREATE TABLE reading_amendment (
    id        INTEGER PRIMARY KEY,
    asset_id  INTEGER NOT NULL,
    at_ms     INTEGER NOT NULL,
    kind      TEXT NOT NULL CHECK (kind IN ('corrected', 'voided', 'restored')),
    "column"  TEXT,
    before    REAL,
    after     REAL,
    reason    TEXT NOT NULL,
    made_at   TEXT NOT NULL,
    FOREIGN KEY (asset_id, at_ms) REFERENCES reading (asset_id, at_ms)
) STRICT;
CREATE TABLE service (
    id        INTEGER PRIMARY KEY,
    asset_id  INTEGER NOT NULL REFERENCES asset (id),
    date      TEXT NOT NULL,
    level     TEXT NOT NULL, voided_at TEXT, voided_reason TEXT,
    UNIQUE (asset_id, date, level)
) STRICT;
INSERT INTO "service" VALUES(1,1,'2025-06-01','dust-out',NULL,NULL);
INSERT INTO "service" VALUES(2,2,'2025-06-01','dust-out',NULL,NULL);
INSERT INTO "service" VALUES(3,3,'2025-06-01','dust-out',NULL,NULL);
INSERT INTO "service" VALUES(4,4,'2025-06-01','dust-out',NULL,NULL);
INSERT INTO "service" VALUES(5,5,'2025-06-01','dust-out',NULL,NULL);
INSERT INTO "service" VALUES(6,6,'2025-06-01','dust-out',NULL,NULL);
INSERT INTO "service" VALUES(7,1,'2026-11-26','fan-swap',NULL,NULL);
INSERT INTO "service" VALUES(8,1,'2026-11-26','repaste',NULL,NULL);
INSERT INTO "service" VALUES(9,2,'2026-11-26','repad',NULL,NULL);
CREATE TABLE set_aside (
    asset_id  INTEGER PRIMARY KEY REFERENCES asset (id),
    reason    TEXT NOT NULL,
    until     TEXT NOT NULL,
    made_at   TEXT NOT NULL
) STRICT;
CREATE TABLE site (
    id          INTEGER PRIMARY KEY,
    code        TEXT NOT NULL UNIQUE,
    name        TEXT NOT NULL,
    altitude_m  REAL NOT NULL
) STRICT;
INSERT INTO "site" VALUES(1,'S','Site',5.0);
CREATE TABLE symptom (
    id                INTEGER PRIMARY KEY,
    asset_id          INTEGER NOT NULL REFERENCES asset (id),
    date              TEXT NOT NULL,
    kind              TEXT NOT NULL CHECK (kind IN ('crash', 'shutdown', 'throttling', 'noise')),
    note              TEXT,
    made_at           TEXT NOT NULL,
    withdrawn_at      TEXT,
    withdrawn_reason  TEXT
) STRICT;
INSERT INTO "symptom" VALUES(1,5,'2026-11-20','shutdown','under load','2026-11-26T23:26:01.074Z',NULL,NULL);
CREATE TABLE zone (
    id               INTEGER PRIMARY KEY,
    site_id          INTEGER NOT NULL REFERENCES site (id),
    code             TEXT NOT NULL UNIQUE,
    name             TEXT NOT NULL,
    dust             TEXT NOT NULL CHECK (dust IN ('clean', 'normal', 'heavy')),
    design_ambient_c REAL NOT NULL
) STRICT;
INSERT INTO "zone" VALUES(1,1,'Z','Row','normal',33.0);
CREATE INDEX asset_zone ON asset (zone_id);
CREATE INDEX reading_amendment_reading ON reading_amendment (asset_id, at_ms);
CREATE INDEX asset_change_asset ON asset_change (asset_id);
CREATE INDEX job_asset ON job (asset_id);
CREATE INDEX job_state ON job (state) WHERE state IN ('open', 'waiting-for-proof');
CREATE INDEX symptom_asset ON symptom (asset_id);
CREATE INDEX photo_job ON photo (job_id);
COMMIT;
PRAGMA user_version = 6;
