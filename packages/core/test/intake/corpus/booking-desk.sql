--
-- PostgreSQL database dump
--
SET client_encoding = 'UTF8';
CREATE SCHEMA desk;
CREATE TYPE desk.ticket_state AS ENUM ('open', 'paid', 'void');

CREATE TABLE desk.passengers (
    id bigint GENERATED ALWAYS AS IDENTITY,
    full_name character varying(120) NOT NULL,
    email citext UNIQUE,
    api_key text,
    born_on date,
    CONSTRAINT passengers_pkey PRIMARY KEY (id)
);
COMMENT ON TABLE desk.passengers IS 'Whoever travels';
COMMENT ON COLUMN desk.passengers.born_on IS 'For the fare';

CREATE TABLE desk.tickets (
    code character(8) NOT NULL,
    passenger_id bigint NOT NULL,
    state desk.ticket_state DEFAULT 'open'::desk.ticket_state NOT NULL,
    price numeric(8,2) NOT NULL CHECK (price >= 0 AND price <= 5000),
    extras text[],
    sold_at timestamp with time zone DEFAULT now() NOT NULL,
    note jsonb DEFAULT '{}'::jsonb,
    seat point
);
ALTER TABLE ONLY desk.tickets ADD CONSTRAINT tickets_pkey PRIMARY KEY (code);
ALTER TABLE ONLY desk.tickets
    ADD CONSTRAINT tickets_passenger_fkey FOREIGN KEY (passenger_id) REFERENCES desk.passengers(id) ON DELETE CASCADE;

CREATE TABLE desk.groups (
    id uuid DEFAULT gen_random_uuid() PRIMARY KEY,
    leader_id bigint REFERENCES desk.passengers(id) ON DELETE SET NULL,
    parent_id uuid REFERENCES desk.groups(id)
);
CREATE TABLE desk.group_members (
    group_id uuid NOT NULL REFERENCES desk.groups(id) ON DELETE CASCADE,
    passenger_id bigint NOT NULL REFERENCES desk.passengers(id) ON DELETE CASCADE,
    joined_on date NOT NULL DEFAULT CURRENT_DATE,
    PRIMARY KEY (group_id, passenger_id)
);
CREATE UNIQUE INDEX one_leader ON desk.groups USING btree (leader_id);
CREATE INDEX by_state ON desk.tickets (state);
CREATE FUNCTION desk.touch() RETURNS trigger AS $$ BEGIN; RETURN NEW; END; $$ LANGUAGE plpgsql;
CREATE VIEW desk.open_tickets AS SELECT * FROM desk.tickets WHERE state = 'open';
