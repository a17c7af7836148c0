-- PostgreSQL database dump
SET statement_timeout = 0;
CREATE TYPE public.state AS ENUM ('planned', 'departed');
CREATE DOMAIN public.codes AS text[];
CREATE TABLE public.vessels (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    name text NOT NULL,
    codes public.codes,
    extra jsonb DEFAULT '{"kind": "ferry"}'::jsonb NOT NULL,
    built date,
    crest bytea,
    address inet,
    lasts interval,
    sister uuid
);
CREATE TABLE public.trips (
    vessel uuid NOT NULL,
    number integer NOT NULL,
    state public.state DEFAULT 'planned'::public.state NOT NULL,
    at timestamp with time zone DEFAULT now() NOT NULL,
    load real
);
CREATE TABLE public.notes (
    id bigint NOT NULL,
    vessel uuid,
    number integer,
    body text
);
ALTER TABLE public.notes ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY;

COPY public.vessels (id, name, codes, extra, built, crest, address, lasts, sister) FROM stdin;
6f1c1f7e-9c1b-4e0a-9c53-0c2b7d1e8a11	Sula	{A1,"two words",NULL}	{"kind": "ferry"}	2019-05-01	\\x4b53	10.0.0.1	01:30:00	\N
6f1c1f7e-9c1b-4e0a-9c53-0c2b7d1e8a12	Gannet\tII	{}	[]	\N	\N	\N	2 days	6f1c1f7e-9c1b-4e0a-9c53-0c2b7d1e8a11
6f1c1f7e-9c1b-4e0a-9c53-0c2b7d1e8a13	Tern	\N	{	\N	\N	\N	\N	\N
\.

COPY public.trips (vessel, number, state, at, load) FROM stdin;
6f1c1f7e-9c1b-4e0a-9c53-0c2b7d1e8a11	1	planned	2026-06-14 09:30:00+02	0.5
6f1c1f7e-9c1b-4e0a-9c53-0c2b7d1e8a11	2	lost	2026-06-14 10:30:00+00	\N
6f1c1f7e-9c1b-4e0a-9c53-0c2b7d1e8a12	1	departed	2026-06-14 10:30:00.123456+00	NaN
6f1c1f7e-9c1b-4e0a-9c53-0c2b7d1e8a12	1	departed
\.

COPY public.notes (id, vessel, number, body) FROM stdin;
5	6f1c1f7e-9c1b-4e0a-9c53-0c2b7d1e8a11	1	line one\nline two\\ \x41
8	6f1c1f7e-9c1b-4e0a-9c53-0c2b7d1e8a11	2	\N
9	\N	\N	\\N is no NULL
\.

ALTER TABLE ONLY public.vessels ADD CONSTRAINT vessels_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.trips ADD CONSTRAINT trips_pkey PRIMARY KEY (vessel, number);
ALTER TABLE ONLY public.notes ADD CONSTRAINT notes_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.vessels ADD CONSTRAINT sister FOREIGN KEY (sister) REFERENCES public.vessels(id);
ALTER TABLE ONLY public.trips ADD CONSTRAINT of_vessel FOREIGN KEY (vessel) REFERENCES public.vessels(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.notes ADD CONSTRAINT of_trip FOREIGN KEY (vessel, number) REFERENCES public.trips(vessel, number);
SELECT pg_catalog.setval('public.notes_id_seq', 9, true);
