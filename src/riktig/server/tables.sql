-- The tables of the shop's server: what a job file holds, for many jobs and many benches at once.
-- Run once by the owner of an empty database:  psql -d riktig -f tables.sql

CREATE SCHEMA riktig;
REVOKE ALL ON SCHEMA riktig FROM PUBLIC;
SET search_path TO riktig;

-- Which edition of these tables this is. A client that knows only an older one says so and changes nothing.
CREATE TABLE format (version integer NOT NULL);
INSERT INTO format VALUES (1);

-- Who may do what. A login without a row may look and change nothing.
CREATE TABLE person (
    login    text PRIMARY KEY,                  -- the role that he logs in as
    plans    boolean NOT NULL DEFAULT false,    -- changes the plan: adds revisions and jobs
    builds   boolean NOT NULL DEFAULT false,    -- records work and readings
    inspects boolean NOT NULL DEFAULT false,    -- records findings
    signs    boolean NOT NULL DEFAULT false     -- signs judgements, opens live tests, issues, hands over
);

CREATE TABLE job (
    name    text PRIMARY KEY CHECK (name ~ '^[^/\\]+$' AND name !~ '^\.'),
    made_by text NOT NULL DEFAULT session_user,
    made_at timestamptz NOT NULL DEFAULT now()
);
CREATE TABLE revision (
    job       text NOT NULL REFERENCES job,
    number    integer NOT NULL,
    text      text NOT NULL,
    who       text NOT NULL,
    at        text NOT NULL,
    why       text NOT NULL,
    digest    text NOT NULL,
    signer    text NOT NULL,
    signature text NOT NULL,
    token     text NOT NULL UNIQUE,             -- made by the bench: handing in twice is handing in once
    PRIMARY KEY (job, number)
);
CREATE TABLE entry (
    job       text NOT NULL REFERENCES job,
    seq       integer NOT NULL,
    id        text NOT NULL,
    kind      text NOT NULL,
    subject   text NOT NULL,
    facts     text NOT NULL,
    who       text NOT NULL,
    at        text NOT NULL,
    revision  integer NOT NULL,
    corrects  text NOT NULL,
    digest    text NOT NULL,
    signer    text NOT NULL,
    signature text NOT NULL,
    PRIMARY KEY (job, seq),
    UNIQUE (job, id)
);
CREATE TABLE attachment (
    job  text NOT NULL REFERENCES job,
    name text NOT NULL,
    kind text NOT NULL,
    body bytea NOT NULL,
    PRIMARY KEY (job, name)
);
-- How far a job goes. Its row is locked by whoever hands in, so that one hands in after the other.
CREATE TABLE head (
    job       text PRIMARY KEY REFERENCES job,
    count     integer NOT NULL,
    entries   integer NOT NULL,
    revisions integer NOT NULL,
    digest    text NOT NULL,
    signer    text NOT NULL,
    signature text NOT NULL
);
-- Which benches have a job open, for the shop board.
CREATE TABLE bench (
    job   text NOT NULL REFERENCES job,
    bench text NOT NULL,
    who   text NOT NULL,
    seen  timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (job, bench)
);
-- How each job stands, as the bench that worked on it last found, for the shop board.
CREATE TABLE standing (
    job          text PRIMARY KEY REFERENCES job,
    number       text NOT NULL,
    title        text NOT NULL,
    stage        text NOT NULL,
    blocks       text NOT NULL,
    minutes_left integer NOT NULL,
    revision     integer NOT NULL,
    entries      integer NOT NULL,
    at           timestamptz NOT NULL DEFAULT now()
);

CREATE FUNCTION only_appended() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    RAISE EXCEPTION 'riktig: % is append-only', TG_TABLE_NAME;
END $$;
CREATE TRIGGER only_appended BEFORE UPDATE OR DELETE OR TRUNCATE ON revision
    FOR EACH STATEMENT EXECUTE FUNCTION only_appended();
CREATE TRIGGER only_appended BEFORE UPDATE OR DELETE OR TRUNCATE ON entry
    FOR EACH STATEMENT EXECUTE FUNCTION only_appended();
CREATE TRIGGER only_appended BEFORE UPDATE OR DELETE OR TRUNCATE ON attachment
    FOR EACH STATEMENT EXECUTE FUNCTION only_appended();

-- What each kind of entry asks of whoever records it; any other is work.
CREATE FUNCTION right_for(kind text) RETURNS text LANGUAGE sql IMMUTABLE AS $$
    SELECT CASE
        WHEN kind IN ('judgement', 'live released', 'issued', 'dispatched', 'as built') THEN 'signs'
        WHEN kind IN ('finding', 'finding settled', 'compared') THEN 'inspects'
        ELSE 'builds'
    END
$$;
CREATE FUNCTION see_rights() RETURNS trigger LANGUAGE plpgsql SECURITY DEFINER SET search_path = riktig AS $$
DECLARE
    asked text := CASE TG_TABLE_NAME WHEN 'entry' THEN right_for(to_jsonb(NEW) ->> 'kind') ELSE 'plans' END;
    given boolean;
BEGIN
    SELECT (to_jsonb(person) ->> asked)::boolean INTO given FROM person WHERE login = session_user;
    IF given IS NOT TRUE THEN
        RAISE EXCEPTION 'riktig: % may not do what needs the right “%”', session_user, asked USING ERRCODE = '42501';
    END IF;
    RETURN NEW;
END $$;
CREATE TRIGGER see_rights BEFORE INSERT ON job FOR EACH ROW EXECUTE FUNCTION see_rights();
CREATE TRIGGER see_rights BEFORE INSERT ON revision FOR EACH ROW EXECUTE FUNCTION see_rights();
CREATE TRIGGER see_rights BEFORE INSERT ON entry FOR EACH ROW EXECUTE FUNCTION see_rights();

-- Every bench that has the job open hears of what comes.
CREATE FUNCTION tell_benches() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    PERFORM pg_notify('riktig', NEW.job);
    RETURN NULL;
END $$;
CREATE TRIGGER tell_benches AFTER INSERT OR UPDATE ON head FOR EACH ROW EXECUTE FUNCTION tell_benches();

-- The group of all who work with Riktig; a person's role is a member of it.
DO $$
BEGIN
    IF NOT EXISTS (SELECT FROM pg_roles WHERE rolname = 'riktig_people') THEN
        CREATE ROLE riktig_people NOLOGIN;
    END IF;
END $$;
GRANT USAGE ON SCHEMA riktig TO riktig_people;
GRANT SELECT ON ALL TABLES IN SCHEMA riktig TO riktig_people;
GRANT INSERT ON job, revision, entry, attachment TO riktig_people;
GRANT INSERT, UPDATE ON head, standing, bench TO riktig_people;
GRANT DELETE ON bench TO riktig_people;
