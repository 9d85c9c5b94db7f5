SET statement_timeout = 0;
SET lock_timeout = 0;
SET idle_in_transaction_session_timeout = 0;
SET client_encoding = 'UTF8';
SET standard_conforming_strings = on;
SELECT pg_catalog.set_config('search_path', '', false);
SET check_function_bodies = false;
SET xmloption = content;
SET client_min_messages = warning;
SET row_security = off;
CREATE EXTENSION IF NOT EXISTS btree_gist WITH SCHEMA public;
COMMENT ON EXTENSION btree_gist IS 'support for indexing common datatypes in GiST';
CREATE DOMAIN public.detail AS text
	CONSTRAINT detail_check CHECK ((VALUE = ANY (ARRAY['nothing'::text, 'times'::text, 'headline'::text, 'complete'::text])));
CREATE DOMAIN public.short_name AS text
	CONSTRAINT short_name_check CHECK (((VALUE = btrim(VALUE)) AND ((char_length(VALUE) >= 1) AND (char_length(VALUE) <= 960))));
CREATE FUNCTION public.detail_rank(public.detail) RETURNS integer
    LANGUAGE sql IMMUTABLE STRICT PARALLEL SAFE
    AS $_$
    select array_position(array['nothing', 'times', 'headline', 'complete'], $1::text)
$_$;
SET default_tablespace = '';
SET default_table_access_method = heap;
CREATE TABLE public.account (
    id uuid NOT NULL,
    email text NOT NULL,
    normalized_email text NOT NULL,
    name public.short_name NOT NULL,
    password_hash text,
    security_stamp text NOT NULL,
    created_at timestamp with time zone NOT NULL,
    last_sign_in_at timestamp with time zone,
    reset_mailed_at timestamp with time zone,
    CONSTRAINT account_email_check CHECK (((email ~~ '%_@_%'::text) AND (char_length(email) <= 254))),
    CONSTRAINT account_normalized_email_check CHECK ((normalized_email = upper(normalized_email)))
);
ALTER TABLE ONLY public.account FORCE ROW LEVEL SECURITY;
CREATE TABLE public.artefact (
    edition_id uuid NOT NULL,
    key text NOT NULL,
    content_version bigint NOT NULL,
    etag text NOT NULL,
    content bytea NOT NULL,
    changed_at timestamp with time zone NOT NULL,
    organisation_id uuid NOT NULL,
    audience text NOT NULL,
    valid_until timestamp with time zone,
    closes_at timestamp with time zone,
    CONSTRAINT artefact_audience_check CHECK ((audience = ANY (ARRAY['members'::text, 'link'::text, 'everyone'::text]))),
    CONSTRAINT artefact_content_version_check CHECK ((content_version > 0)),
    CONSTRAINT artefact_etag_check CHECK (((char_length(etag) >= 8) AND (char_length(etag) <= 64))),
    CONSTRAINT artefact_key_check CHECK (((key = ANY (ARRAY['feed'::text, 'all'::text, 'changed'::text])) OR (key ~ '^month:[0-9]{4}-[0-9]{2}$'::text)))
);
ALTER TABLE ONLY public.artefact FORCE ROW LEVEL SECURITY;
CREATE TABLE public.audit (
    id uuid NOT NULL,
    organisation_id uuid NOT NULL,
    account_id uuid NOT NULL,
    at timestamp with time zone NOT NULL,
    act text NOT NULL,
    subject text NOT NULL,
    detail text DEFAULT ''::text NOT NULL
);
ALTER TABLE ONLY public.audit FORCE ROW LEVEL SECURITY;
CREATE TABLE public.calendar (
    id uuid NOT NULL,
    organisation_id uuid NOT NULL,
    name public.short_name NOT NULL,
    plate text NOT NULL,
    colour text NOT NULL,
    zone text NOT NULL,
    description text DEFAULT ''::text NOT NULL,
    members public.detail NOT NULL,
    link public.detail NOT NULL,
    everyone public.detail NOT NULL,
    version integer DEFAULT 1 NOT NULL,
    created_at timestamp with time zone NOT NULL,
    readerships text[] DEFAULT '{}'::text[] NOT NULL,
    requires_sign_off boolean DEFAULT true NOT NULL,
    archived_at timestamp with time zone,
    removed_at timestamp with time zone,
    merged_into uuid,
    CONSTRAINT calendar_colour_check CHECK ((colour = ANY (ARRAY['harbour'::text, 'timber'::text, 'heather'::text, 'kelp'::text, 'madder'::text, 'moss'::text, 'slate'::text, 'fjord'::text, 'plum'::text, 'navy'::text, 'peat'::text, 'umber'::text]))),
    CONSTRAINT calendar_description_check CHECK ((char_length(description) <= 24000)),
    CONSTRAINT calendar_plate_check CHECK (((plate = upper(plate)) AND ((char_length(plate) >= 1) AND (char_length(plate) <= 4)) AND (plate !~ '[[:space:][:punct:]]'::text))),
    CONSTRAINT calendar_readerships_check CHECK ((cardinality(readerships) <= 20)),
    CONSTRAINT calendar_version_check CHECK ((version > 0)),
    CONSTRAINT calendar_zone_check CHECK ((zone <> ''::text)),
    CONSTRAINT disclosure_is_monotone CHECK (((public.detail_rank(members) >= public.detail_rank(link)) AND (public.detail_rank(link) >= public.detail_rank(everyone))))
);
ALTER TABLE ONLY public.calendar FORCE ROW LEVEL SECURITY;
CREATE TABLE public.calendar_group (
    id uuid NOT NULL,
    organisation_id uuid NOT NULL,
    name public.short_name NOT NULL,
    version integer DEFAULT 1 NOT NULL,
    CONSTRAINT calendar_group_version_check CHECK ((version > 0))
);
ALTER TABLE ONLY public.calendar_group FORCE ROW LEVEL SECURITY;
CREATE TABLE public.calendar_group_member (
    organisation_id uuid NOT NULL,
    group_id uuid NOT NULL,
    calendar_id uuid NOT NULL
);
ALTER TABLE ONLY public.calendar_group_member FORCE ROW LEVEL SECURITY;
CREATE TABLE public.calendar_role (
    organisation_id uuid NOT NULL,
    calendar_id uuid NOT NULL,
    account_id uuid NOT NULL,
    role text NOT NULL,
    CONSTRAINT calendar_role_role_check CHECK ((role = ANY (ARRAY['reader'::text, 'contributor'::text, 'editor'::text])))
);
ALTER TABLE ONLY public.calendar_role FORCE ROW LEVEL SECURITY;
CREATE TABLE public.category (
    id uuid NOT NULL,
    organisation_id uuid NOT NULL,
    name public.short_name NOT NULL,
    colour text NOT NULL,
    retired_at timestamp with time zone,
    merged_into uuid,
    CONSTRAINT category_colour_check CHECK ((colour = ANY (ARRAY['harbour'::text, 'timber'::text, 'heather'::text, 'kelp'::text, 'madder'::text, 'moss'::text, 'slate'::text, 'fjord'::text, 'plum'::text, 'navy'::text, 'peat'::text, 'umber'::text])))
);
ALTER TABLE ONLY public.category FORCE ROW LEVEL SECURITY;
CREATE TABLE public.data_protection_key (
    friendly_name text NOT NULL,
    xml text NOT NULL
);
CREATE TABLE public.delivered (
    edition_id uuid NOT NULL,
    organisation_id uuid NOT NULL,
    audience text NOT NULL,
    variant text DEFAULT ''::text NOT NULL,
    uid uuid NOT NULL,
    recurrence_id text NOT NULL,
    digest uuid,
    sequence integer NOT NULL,
    changed_at timestamp with time zone NOT NULL,
    first_version bigint NOT NULL,
    since_version bigint NOT NULL,
    calendars uuid[] NOT NULL,
    gone_at timestamp with time zone,
    CONSTRAINT delivered_sequence_check CHECK ((sequence >= 0))
);
ALTER TABLE ONLY public.delivered FORCE ROW LEVEL SECURITY;
CREATE TABLE public.delivery (
    organisation_id uuid NOT NULL,
    edition_id uuid NOT NULL,
    audience text NOT NULL,
    kind text NOT NULL,
    program bytea NOT NULL,
    last_at timestamp with time zone NOT NULL,
    CONSTRAINT delivery_audience_check CHECK ((audience = ANY (ARRAY['members'::text, 'link'::text, 'everyone'::text]))),
    CONSTRAINT delivery_kind_check CHECK ((kind = ANY (ARRAY['page'::text, 'embed'::text, 'feed'::text])))
);
ALTER TABLE ONLY public.delivery FORCE ROW LEVEL SECURITY;
CREATE TABLE public.edition (
    id uuid NOT NULL,
    organisation_id uuid NOT NULL,
    calendar_id uuid,
    slug text NOT NULL,
    feed_uid uuid DEFAULT gen_random_uuid() NOT NULL,
    program_key uuid DEFAULT gen_random_uuid() NOT NULL,
    name public.short_name,
    audience text,
    settings jsonb,
    version integer DEFAULT 1 NOT NULL,
    changed_at timestamp with time zone NOT NULL,
    removed_at timestamp with time zone,
    content_version bigint DEFAULT 1 NOT NULL,
    not_before bigint DEFAULT 0 NOT NULL,
    sequence_floor integer DEFAULT 0 NOT NULL,
    CONSTRAINT edition_audience_check CHECK ((audience = ANY (ARRAY['members'::text, 'link'::text, 'everyone'::text]))),
    CONSTRAINT edition_content_version_check CHECK ((content_version > 0)),
    CONSTRAINT edition_is_of_one_calendar_or_composed CHECK ((((calendar_id IS NULL) = (name IS NOT NULL)) AND ((calendar_id IS NULL) = (audience IS NOT NULL)) AND ((calendar_id IS NOT NULL) OR (settings IS NOT NULL)))),
    CONSTRAINT edition_sequence_floor_check CHECK ((sequence_floor >= 0)),
    CONSTRAINT edition_settings_check CHECK ((jsonb_typeof(settings) = 'object'::text)),
    CONSTRAINT edition_slug_check CHECK (((slug ~ '^[a-z0-9]+(-[a-z0-9]+)*$'::text) AND (char_length(slug) <= 60))),
    CONSTRAINT edition_version_check CHECK ((version > 0))
);
ALTER TABLE ONLY public.edition FORCE ROW LEVEL SECURITY;
CREATE TABLE public.edition_calendar_name (
    edition_id uuid NOT NULL,
    organisation_id uuid NOT NULL,
    name text NOT NULL,
    calendar_id uuid NOT NULL,
    CONSTRAINT edition_calendar_name_name_check CHECK ((name <> ''::text))
);
ALTER TABLE ONLY public.edition_calendar_name FORCE ROW LEVEL SECURITY;
CREATE TABLE public.edition_draft (
    id uuid NOT NULL,
    organisation_id uuid NOT NULL,
    account_id uuid NOT NULL,
    edition_id uuid,
    settings jsonb NOT NULL,
    made_at timestamp with time zone NOT NULL,
    CONSTRAINT edition_draft_settings_check CHECK ((jsonb_typeof(settings) = 'object'::text))
);
ALTER TABLE ONLY public.edition_draft FORCE ROW LEVEL SECURITY;
CREATE TABLE public.edition_source (
    organisation_id uuid NOT NULL,
    edition_id uuid NOT NULL,
    calendar_id uuid NOT NULL
);
ALTER TABLE ONLY public.edition_source FORCE ROW LEVEL SECURITY;
CREATE TABLE public.event (
    id uuid NOT NULL,
    organisation_id uuid NOT NULL,
    home_calendar_id uuid NOT NULL,
    uid uuid DEFAULT gen_random_uuid() NOT NULL,
    title text NOT NULL,
    place text DEFAULT ''::text NOT NULL,
    description_html text DEFAULT ''::text NOT NULL,
    description_text text DEFAULT ''::text NOT NULL,
    state text NOT NULL,
    all_day boolean NOT NULL,
    start_local timestamp without time zone NOT NULL,
    end_local timestamp without time zone NOT NULL,
    zone text NOT NULL,
    rrule text,
    reach tstzrange NOT NULL,
    version integer DEFAULT 1 NOT NULL,
    created_at timestamp with time zone NOT NULL,
    removed_at timestamp with time zone,
    category_id uuid,
    tags text[] DEFAULT '{}'::text[] NOT NULL,
    extra timestamp without time zone[] DEFAULT '{}'::timestamp without time zone[] NOT NULL,
    removed_dates timestamp without time zone[] DEFAULT '{}'::timestamp without time zone[] NOT NULL,
    in_breaks text DEFAULT 'ignore'::text NOT NULL,
    cycle_numbers smallint[],
    cycle_weekdays smallint[],
    cycle_until date,
    cycle_count integer,
    continues uuid,
    links jsonb DEFAULT '[]'::jsonb NOT NULL,
    files jsonb DEFAULT '[]'::jsonb NOT NULL,
    contact text DEFAULT ''::text NOT NULL,
    notes text DEFAULT ''::text NOT NULL,
    cap_members public.detail,
    cap_link public.detail,
    cap_everyone public.detail,
    show_from date,
    show_until date,
    made_by uuid,
    CONSTRAINT cap_is_monotone CHECK ((COALESCE((public.detail_rank(cap_link) <= public.detail_rank(cap_members)), true) AND COALESCE((public.detail_rank(cap_everyone) <= public.detail_rank(cap_link)), true) AND COALESCE((public.detail_rank(cap_everyone) <= public.detail_rank(cap_members)), true))),
    CONSTRAINT cycle_is_whole CHECK ((((cycle_numbers IS NULL) = (cycle_weekdays IS NULL)) AND ((cycle_numbers IS NOT NULL) OR ((cycle_until IS NULL) AND (cycle_count IS NULL))) AND ((cycle_until IS NULL) OR (cycle_count IS NULL)))),
    CONSTRAINT event_contact_check CHECK ((char_length(contact) <= 2400)),
    CONSTRAINT event_cycle_count_check CHECK ((cycle_count > 0)),
    CONSTRAINT event_cycle_numbers_check CHECK (((cardinality(cycle_numbers) >= 1) AND (cardinality(cycle_numbers) <= 10))),
    CONSTRAINT event_cycle_weekdays_check CHECK ((cardinality(cycle_weekdays) <= 7)),
    CONSTRAINT event_description_html_check CHECK ((char_length(description_html) <= 240000)),
    CONSTRAINT event_ends_after_start CHECK ((end_local >= start_local)),
    CONSTRAINT event_extra_check CHECK ((cardinality(extra) <= 1000)),
    CONSTRAINT event_files_check CHECK ((jsonb_typeof(files) = 'array'::text)),
    CONSTRAINT event_in_breaks_check CHECK ((in_breaks = ANY (ARRAY['ignore'::text, 'skip'::text, 'move'::text]))),
    CONSTRAINT event_links_check CHECK ((jsonb_typeof(links) = 'array'::text)),
    CONSTRAINT event_notes_check CHECK ((char_length(notes) <= 60000)),
    CONSTRAINT event_place_check CHECK ((char_length(place) <= 2400)),
    CONSTRAINT event_reach_check CHECK (((NOT isempty(reach)) AND (lower(reach) IS NOT NULL))),
    CONSTRAINT event_recurs_one_way CHECK (((rrule IS NULL) OR (cycle_numbers IS NULL))),
    CONSTRAINT event_removed_dates_check CHECK ((cardinality(removed_dates) <= 1000)),
    CONSTRAINT event_rrule_check CHECK (((rrule ~ 'FREQ='::text) AND (char_length(rrule) <= 1000))),
    CONSTRAINT event_state_check CHECK ((state = ANY (ARRAY['draft'::text, 'waiting'::text, 'live'::text, 'cancelled'::text]))),
    CONSTRAINT event_tags_check CHECK ((cardinality(tags) <= 20)),
    CONSTRAINT event_title_check CHECK (((title = btrim(title)) AND ((char_length(title) >= 1) AND (char_length(title) <= 2400)))),
    CONSTRAINT event_version_check CHECK ((version > 0)),
    CONSTRAINT event_zone_check CHECK ((zone <> ''::text)),
    CONSTRAINT showing_span_is_a_span CHECK ((show_until >= show_from)),
    CONSTRAINT whole_days_are_midnights CHECK (((NOT all_day) OR ((start_local = date_trunc('day'::text, start_local)) AND (end_local = date_trunc('day'::text, end_local)) AND (end_local > start_local))))
);
ALTER TABLE ONLY public.event FORCE ROW LEVEL SECURITY;
CREATE TABLE public.event_exception (
    organisation_id uuid NOT NULL,
    event_id uuid NOT NULL,
    recurrence_id timestamp without time zone NOT NULL,
    is_cancelled boolean DEFAULT false NOT NULL,
    start_local timestamp without time zone,
    end_local timestamp without time zone,
    title text,
    place text,
    description_html text,
    description_text text,
    CONSTRAINT event_exception_description_html_check CHECK ((char_length(description_html) <= 240000)),
    CONSTRAINT event_exception_place_check CHECK ((char_length(place) <= 2400)),
    CONSTRAINT event_exception_title_check CHECK (((title = btrim(title)) AND ((char_length(title) >= 1) AND (char_length(title) <= 2400)))),
    CONSTRAINT exception_differs CHECK ((is_cancelled OR (start_local IS NOT NULL) OR (title IS NOT NULL) OR (place IS NOT NULL) OR (description_html IS NOT NULL))),
    CONSTRAINT exception_moves_both_ends CHECK ((((start_local IS NULL) = (end_local IS NULL)) AND (end_local >= start_local))),
    CONSTRAINT exception_text_is_whole CHECK (((description_html IS NULL) = (description_text IS NULL)))
);
ALTER TABLE ONLY public.event_exception FORCE ROW LEVEL SECURITY;
CREATE TABLE public.failed_sign_in (
    account bytea NOT NULL,
    address bytea NOT NULL,
    failures integer NOT NULL,
    last_at timestamp with time zone NOT NULL,
    CONSTRAINT failed_sign_in_account_check CHECK ((octet_length(account) = 32)),
    CONSTRAINT failed_sign_in_address_check CHECK ((octet_length(address) = 32)),
    CONSTRAINT failed_sign_in_failures_check CHECK ((failures > 0))
);
ALTER TABLE ONLY public.failed_sign_in FORCE ROW LEVEL SECURITY;
CREATE TABLE public.file (
    id uuid NOT NULL,
    organisation_id uuid NOT NULL,
    name text NOT NULL,
    type text NOT NULL,
    content bytea NOT NULL,
    made_by uuid NOT NULL,
    made_at timestamp with time zone NOT NULL,
    CONSTRAINT file_content_check CHECK (((octet_length(content) >= 1) AND (octet_length(content) <= 10485760))),
    CONSTRAINT file_name_check CHECK (((char_length(name) >= 1) AND (char_length(name) <= 2400))),
    CONSTRAINT file_type_check CHECK ((type ~ '^[a-z0-9.+-]+/[a-z0-9.+-]+$'::text))
);
ALTER TABLE ONLY public.file FORCE ROW LEVEL SECURITY;
CREATE TABLE public.invitation (
    id uuid NOT NULL,
    organisation_id uuid NOT NULL,
    email text NOT NULL,
    normalized_email text NOT NULL,
    is_administrator boolean NOT NULL,
    digest bytea NOT NULL,
    invited_by uuid NOT NULL,
    invited_at timestamp with time zone NOT NULL,
    expires_at timestamp with time zone NOT NULL,
    accepted_at timestamp with time zone,
    withdrawn_at timestamp with time zone,
    CONSTRAINT invitation_check CHECK ((expires_at > invited_at)),
    CONSTRAINT invitation_digest_check CHECK ((octet_length(digest) = 32)),
    CONSTRAINT invitation_email_check CHECK (((email ~~ '%_@_%'::text) AND (char_length(email) <= 254))),
    CONSTRAINT invitation_ends_one_way CHECK (((accepted_at IS NULL) OR (withdrawn_at IS NULL)))
);
ALTER TABLE ONLY public.invitation FORCE ROW LEVEL SECURITY;
CREATE TABLE public.invitation_role (
    organisation_id uuid NOT NULL,
    invitation_id uuid NOT NULL,
    calendar_id uuid NOT NULL,
    role text NOT NULL,
    CONSTRAINT invitation_role_role_check CHECK ((role = ANY (ARRAY['reader'::text, 'contributor'::text, 'editor'::text])))
);
ALTER TABLE ONLY public.invitation_role FORCE ROW LEVEL SECURITY;
CREATE TABLE public.mail (
    id uuid NOT NULL,
    organisation_id uuid NOT NULL,
    recipient text NOT NULL,
    subject text NOT NULL,
    body text NOT NULL,
    sent_at timestamp with time zone
);
ALTER TABLE ONLY public.mail FORCE ROW LEVEL SECURITY;
CREATE TABLE public.membership (
    organisation_id uuid NOT NULL,
    account_id uuid NOT NULL,
    is_administrator boolean DEFAULT false NOT NULL,
    ended_at timestamp with time zone,
    version integer DEFAULT 1 NOT NULL,
    CONSTRAINT membership_version_check CHECK ((version > 0))
);
ALTER TABLE ONLY public.membership FORCE ROW LEVEL SECURITY;
CREATE TABLE public.notice (
    id uuid NOT NULL,
    organisation_id uuid NOT NULL,
    account_id uuid NOT NULL,
    made_at timestamp with time zone NOT NULL,
    sentence text NOT NULL,
    path text NOT NULL,
    mailed_at timestamp with time zone
);
ALTER TABLE ONLY public.notice FORCE ROW LEVEL SECURITY;
CREATE TABLE public.organisation (
    id uuid NOT NULL,
    slug text NOT NULL,
    name public.short_name NOT NULL,
    zone text NOT NULL,
    locale text NOT NULL,
    first_day_of_week smallint NOT NULL,
    year_starts_in smallint NOT NULL,
    CONSTRAINT organisation_first_day_of_week_check CHECK (((first_day_of_week >= 1) AND (first_day_of_week <= 7))),
    CONSTRAINT organisation_locale_check CHECK ((locale ~ '^[a-z]{2,3}(-[A-Za-z0-9]+)*$'::text)),
    CONSTRAINT organisation_slug_check CHECK (((slug ~ '^[a-z0-9]+(-[a-z0-9]+)*$'::text) AND (char_length(slug) <= 48))),
    CONSTRAINT organisation_year_starts_in_check CHECK (((year_starts_in >= 1) AND (year_starts_in <= 12))),
    CONSTRAINT organisation_zone_check CHECK ((zone <> ''::text))
);
ALTER TABLE ONLY public.organisation FORCE ROW LEVEL SECURITY;
CREATE TABLE public.outward_name (
    edition_id uuid NOT NULL,
    organisation_id uuid NOT NULL,
    audience text NOT NULL,
    variant text DEFAULT ''::text NOT NULL,
    event_id uuid NOT NULL,
    recurrence_id text NOT NULL,
    own uuid,
    uid uuid NOT NULL
);
ALTER TABLE ONLY public.outward_name FORCE ROW LEVEL SECURITY;
CREATE TABLE public.place (
    id uuid NOT NULL,
    organisation_id uuid NOT NULL,
    name text NOT NULL,
    latitude double precision,
    longitude double precision,
    retired_at timestamp with time zone,
    CONSTRAINT place_is_somewhere_whole CHECK (((latitude IS NULL) = (longitude IS NULL))),
    CONSTRAINT place_latitude_check CHECK (((latitude >= ('-90'::integer)::double precision) AND (latitude <= (90)::double precision))),
    CONSTRAINT place_longitude_check CHECK (((longitude >= ('-180'::integer)::double precision) AND (longitude <= (180)::double precision))),
    CONSTRAINT place_name_check CHECK (((name = btrim(name)) AND ((char_length(name) >= 1) AND (char_length(name) <= 2400))))
);
ALTER TABLE ONLY public.place FORCE ROW LEVEL SECURITY;
CREATE TABLE public.placement (
    organisation_id uuid NOT NULL,
    event_id uuid NOT NULL,
    calendar_id uuid NOT NULL
);
ALTER TABLE ONLY public.placement FORCE ROW LEVEL SECURITY;
CREATE TABLE public.revision (
    organisation_id uuid NOT NULL,
    event_id uuid NOT NULL,
    version integer NOT NULL,
    act text NOT NULL,
    account_id uuid NOT NULL,
    made_at timestamp with time zone NOT NULL,
    content jsonb NOT NULL,
    act_id uuid DEFAULT gen_random_uuid() NOT NULL,
    CONSTRAINT revision_act_check CHECK ((act = ANY (ARRAY['made'::text, 'changed'::text, 'cancelled'::text, 'removed'::text, 'restored'::text, 'undone'::text]))),
    CONSTRAINT revision_content_check CHECK ((jsonb_typeof(content) = 'object'::text)),
    CONSTRAINT revision_version_check CHECK ((version > 0))
);
ALTER TABLE ONLY public.revision FORCE ROW LEVEL SECURITY;
CREATE TABLE public.schemaversions (
    schemaversionsid integer NOT NULL,
    scriptname character varying(255) NOT NULL,
    applied timestamp without time zone NOT NULL
);
CREATE SEQUENCE public.schemaversions_schemaversionsid_seq
    AS integer
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1;
ALTER SEQUENCE public.schemaversions_schemaversionsid_seq OWNED BY public.schemaversions.schemaversionsid;
CREATE TABLE public.secret_link (
    id uuid NOT NULL,
    organisation_id uuid NOT NULL,
    secret text,
    digest bytea NOT NULL,
    feed_uid uuid DEFAULT gen_random_uuid() NOT NULL,
    made_at timestamp with time zone NOT NULL,
    ended_at timestamp with time zone,
    ended_how text,
    edition_id uuid NOT NULL,
    account_id uuid,
    CONSTRAINT secret_link_digest_check CHECK ((octet_length(digest) = 32)),
    CONSTRAINT secret_link_ended_how_check CHECK ((ended_how = ANY (ARRAY['replaced'::text, 'withdrawn'::text]))),
    CONSTRAINT secret_link_ends_whole CHECK ((((ended_at IS NULL) = (ended_how IS NULL)) AND ((ended_at IS NULL) = (secret IS NOT NULL)))),
    CONSTRAINT secret_link_secret_check CHECK ((secret ~ '^[A-Za-z0-9_-]{32}$'::text))
);
ALTER TABLE ONLY public.secret_link FORCE ROW LEVEL SECURITY;
CREATE TABLE public.session (
    id uuid NOT NULL,
    account_id uuid NOT NULL,
    made_at timestamp with time zone NOT NULL,
    seen_at timestamp with time zone NOT NULL,
    ended_at timestamp with time zone,
    CONSTRAINT session_check CHECK ((seen_at >= made_at))
);
ALTER TABLE ONLY public.session FORCE ROW LEVEL SECURITY;
CREATE TABLE public.submission (
    id uuid NOT NULL,
    organisation_id uuid NOT NULL,
    kind text NOT NULL,
    event_id uuid NOT NULL,
    calendar_id uuid NOT NULL,
    title text NOT NULL,
    proposer_id uuid NOT NULL,
    made_at timestamp with time zone NOT NULL,
    request jsonb,
    base jsonb,
    state text DEFAULT 'open'::text NOT NULL,
    reason text DEFAULT ''::text NOT NULL,
    decided_by uuid,
    decided_at timestamp with time zone,
    CONSTRAINT sent_back_with_a_reason CHECK (((state <> 'sentback'::text) OR (reason <> ''::text))),
    CONSTRAINT submission_is_decided_whole CHECK ((((state = 'open'::text) = (decided_at IS NULL)) AND ((decided_at IS NULL) = (decided_by IS NULL)))),
    CONSTRAINT submission_kind_check CHECK ((kind = ANY (ARRAY['event'::text, 'change'::text, 'placement'::text]))),
    CONSTRAINT submission_of_a_change_has_it CHECK (((kind = 'change'::text) = (request IS NOT NULL))),
    CONSTRAINT submission_reason_check CHECK ((char_length(reason) <= 24000)),
    CONSTRAINT submission_state_check CHECK ((state = ANY (ARRAY['open'::text, 'approved'::text, 'sentback'::text, 'withdrawn'::text])))
);
ALTER TABLE ONLY public.submission FORCE ROW LEVEL SECURITY;
CREATE TABLE public.work (
    kind text NOT NULL,
    key text NOT NULL,
    organisation_id uuid,
    due_at timestamp with time zone NOT NULL,
    wanted bigint DEFAULT 1 NOT NULL,
    tries integer DEFAULT 0 NOT NULL,
    claimed_until timestamp with time zone,
    failed_since timestamp with time zone,
    reason text,
    last_error text,
    set_aside_at timestamp with time zone,
    CONSTRAINT failure_is_whole CHECK ((((failed_since IS NULL) = (reason IS NULL)) AND ((failed_since IS NULL) = (last_error IS NULL)) AND ((set_aside_at IS NULL) OR (failed_since IS NOT NULL)))),
    CONSTRAINT work_key_check CHECK ((key <> ''::text)),
    CONSTRAINT work_kind_check CHECK ((kind = ANY (ARRAY['render'::text, 'mail'::text, 'gather'::text, 'reset'::text, 'sweep'::text]))),
    CONSTRAINT work_reason_check CHECK ((reason = ANY (ARRAY['database'::text, 'disk'::text, 'mailserver'::text, 'ours'::text]))),
    CONSTRAINT work_tries_check CHECK ((tries >= 0)),
    CONSTRAINT work_wanted_check CHECK ((wanted > 0))
);
ALTER TABLE ONLY public.work FORCE ROW LEVEL SECURITY;
CREATE TABLE public.year_plan (
    id uuid NOT NULL,
    organisation_id uuid NOT NULL,
    name public.short_name NOT NULL,
    first_day date NOT NULL,
    last_day date NOT NULL,
    cycle_unit text,
    cycle_length smallint,
    cycle_restarts boolean DEFAULT false NOT NULL,
    version integer DEFAULT 1 NOT NULL,
    CONSTRAINT year_plan_cycle_is_whole CHECK (((cycle_unit IS NULL) = (cycle_length IS NULL))),
    CONSTRAINT year_plan_cycle_length_check CHECK (((cycle_length >= 1) AND (cycle_length <= 10))),
    CONSTRAINT year_plan_cycle_unit_check CHECK ((cycle_unit = ANY (ARRAY['days'::text, 'weeks'::text]))),
    CONSTRAINT year_plan_ends_after_start CHECK ((last_day >= first_day)),
    CONSTRAINT year_plan_version_check CHECK ((version > 0))
);
ALTER TABLE ONLY public.year_plan FORCE ROW LEVEL SECURITY;
CREATE TABLE public.year_plan_span (
    year_plan_id uuid NOT NULL,
    kind text NOT NULL,
    name public.short_name NOT NULL,
    first_day date NOT NULL,
    last_day date NOT NULL,
    CONSTRAINT span_ends_after_start CHECK ((last_day >= first_day)),
    CONSTRAINT year_plan_span_kind_check CHECK ((kind = ANY (ARRAY['term'::text, 'break'::text])))
);
ALTER TABLE ONLY public.year_plan_span FORCE ROW LEVEL SECURITY;
ALTER TABLE ONLY public.schemaversions ALTER COLUMN schemaversionsid SET DEFAULT nextval('public.schemaversions_schemaversionsid_seq'::regclass);
INSERT INTO public.account VALUES ('01a21fbb-31a3-7bf0-826c-eaab066583b8', 'bo@pinewick.example', 'BO@PINEWICK.EXAMPLE', 'Bo Quilliam', 'AQAAAAIAAYagAAAAEJVIUOd5HF1EpcJzQhw0Hg/tdglYsASIW8+AhrCmEfqlJaugvQoDHLPYpBXvWEIfkw==', '39e163f29c554302942d0cac33516d86', '2026-11-23 12:00:00.722+00', NULL, NULL);
INSERT INTO public.account VALUES ('01a21fbb-329f-75bf-bd42-f373e578ac42', 'di@pinewick.example', 'DI@PINEWICK.EXAMPLE', 'Di Larkspur', 'AQAAAAIAAYagAAAAEPHXYYBmp1lUjRsnbCvco5Hfw1VWQPl5YoL4n9XfiF1wNCfJkw6dUkdItIu0uTBWcQ==', '85fcd9093b934550afd8e6016bc70b11', '2026-11-23 12:00:00.722+00', NULL, NULL);
INSERT INTO public.account VALUES ('01a21fbb-32fe-7e75-be8e-d8336c1bf2ff', 'em@pinewick.example', 'EM@PINEWICK.EXAMPLE', 'Em Saltmarsh', 'AQAAAAIAAYagAAAAEO1Zzcfb3+EZ1nKECR4EupD6tQUKQBx0sjjE4RxoM+Y+QBuc3gQgHmcXQM+pJL9CIA==', '01454a3c14b4499faee3a7ed74037fc0', '2026-11-23 12:00:00.722+00', NULL, NULL);
INSERT INTO public.account VALUES ('01a21fbb-311c-7114-a480-b3af59fe0dab', 'ada@pinewick.example', 'ADA@PINEWICK.EXAMPLE', 'Ada Dunmore', 'AQAAAAIAAYagAAAAEA+6gKJTFi8+Dhnxv2s7SR3hcXpNxKJA7qa/cFMgvmGHAjlr8y/kbwb3Q3tHWT83WA==', 'e5341e9b5a9a45e199ef05aa2832a39f', '2026-11-23 12:00:00.722+00', '2026-11-23 12:01:47.76189+00', NULL);
INSERT INTO public.account VALUES ('01a21fbb-321f-773f-a12f-65905bdac863', 'cy@pinewick.example', 'CY@PINEWICK.EXAMPLE', 'Cy Marchbank', 'AQAAAAIAAYagAAAAEFUEUPI0hXZr3JrAr1W3Ex2ZrnIMZjB4XKY+1sRWbcLoL+EaOs05DZsbelaPIEPuHA==', '4ddfb7b7319d47eeb8e1ac65ebc81c39', '2026-11-23 12:00:00.722+00', '2026-11-23 12:01:50.364239+00', NULL);
INSERT INTO public.audit VALUES ('01a21fbb-38e2-726e-b631-429ce54f9327', '01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-311c-7114-a480-b3af59fe0dab', '2026-11-23 12:00:00.722+00', 'linkmade', 'Rowing club', '');
INSERT INTO public.audit VALUES ('01a21fbb-39f0-71e3-829c-5184ed849790', '01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-311c-7114-a480-b3af59fe0dab', '2026-11-23 12:00:00.722+00', 'editionmade', 'Juniors for families', '');
INSERT INTO public.audit VALUES ('01a21fbb-39f8-71b9-9c77-e3b34cd34f8a', '01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-311c-7114-a480-b3af59fe0dab', '2026-11-23 12:00:00.722+00', 'editionmade', 'Next at school', '');
INSERT INTO public.audit VALUES ('01a21fbb-39ff-764a-ba88-da5ab33b1ba5', '01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-311c-7114-a480-b3af59fe0dab', '2026-11-23 12:00:00.722+00', 'editionmade', 'Great days, with pictures', '');
INSERT INTO public.audit VALUES ('01a21fbb-3a04-7d7f-b0bc-be05a86b6639', '01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-311c-7114-a480-b3af59fe0dab', '2026-11-23 12:00:00.722+00', 'editionmade', 'Crew families', '');
INSERT INTO public.audit VALUES ('01a21fbb-3a0a-762b-b830-c3843908865b', '01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-311c-7114-a480-b3af59fe0dab', '2026-11-23 12:00:00.722+00', 'linkmade', 'Crew families', '');
INSERT INTO public.audit VALUES ('01a21fbb-3a0e-7b09-bacd-f6c29ae197b1', '01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-311c-7114-a480-b3af59fe0dab', '2026-11-23 12:00:00.722+00', 'editionmade', 'When slipway and hall are taken', '');
INSERT INTO public.audit VALUES ('01a21fbb-3a14-7939-89fa-0d72978e2e3d', '01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-311c-7114-a480-b3af59fe0dab', '2026-11-23 12:00:00.722+00', 'editionmade', 'Everything, for the staff', '');
INSERT INTO public.calendar VALUES ('01a21fbb-3369-76e0-9f99-5401c974edad', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'Port Watch', 'PW', 'harbour', 'America/Halifax', 'Navigation for the juniors of the port watch.', 'complete', 'complete', 'complete', 1, '2026-11-23 12:00:00.722+00', '{"Junior families"}', true, NULL, NULL, NULL);
INSERT INTO public.calendar VALUES ('01a21fbb-34ae-71b6-9803-a8912fd2a841', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'Starboard Watch', 'SW', 'timber', 'America/Halifax', 'Marine science for the juniors of the starboard watch.', 'complete', 'complete', 'complete', 1, '2026-11-23 12:00:00.722+00', '{"Junior families"}', true, NULL, NULL, NULL);
INSERT INTO public.calendar VALUES ('01a21fbb-34b9-7b12-a4e7-cd6ae33a8336', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'Senior Crew', 'CREW', 'heather', 'America/Halifax', 'Pilotage, engines and exams of the senior crew.', 'complete', 'headline', 'headline', 1, '2026-11-23 12:00:00.722+00', '{"Crew families"}', true, NULL, NULL, NULL);
INSERT INTO public.calendar VALUES ('01a21fbb-34c5-76c8-9d08-77d5fcfd6f48', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'Rowing club', 'ROW', 'kelp', 'America/Halifax', 'Training and regattas. Not yet open to families.', 'complete', 'complete', 'nothing', 1, '2026-11-23 12:00:00.722+00', '{}', true, NULL, NULL, NULL);
INSERT INTO public.calendar VALUES ('01a21fbb-34ce-7a40-a41e-e48abf73d9a5', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'Whole school', 'SCH', 'madder', 'America/Halifax', 'Dates for everyone at Pinewick Harbour.', 'complete', 'complete', 'complete', 1, '2026-11-23 12:00:00.722+00', '{"Junior families","Crew families"}', true, NULL, NULL, NULL);
INSERT INTO public.calendar VALUES ('01a21fbb-34d6-7aeb-b478-7353fa70392c', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'Slipway and hall', 'SLIP', 'moss', 'America/Halifax', 'Who has booked the slipway and the hall.', 'complete', 'times', 'times', 1, '2026-11-23 12:00:00.722+00', '{}', true, NULL, NULL, NULL);
INSERT INTO public.calendar VALUES ('01a21fbb-34dd-7c61-8f66-2860f21d7767', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'Staff room', 'STF', 'slate', 'America/Halifax', 'For those who work here.', 'nothing', 'nothing', 'nothing', 1, '2026-11-23 12:00:00.722+00', '{}', true, NULL, NULL, NULL);
INSERT INTO public.calendar_group VALUES ('01a21fbb-37b1-7fb1-98c5-c6cb1b7bf8be', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'Juniors', 1);
INSERT INTO public.calendar_group VALUES ('01a21fbb-37bb-785c-b3cc-a15c35a0f6cc', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'All classes', 1);
INSERT INTO public.calendar_group VALUES ('01a21fbb-37be-7f56-a004-2d3cc86b7445', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'Everything public', 1);
INSERT INTO public.calendar_group_member VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-37b1-7fb1-98c5-c6cb1b7bf8be', '01a21fbb-3369-76e0-9f99-5401c974edad');
INSERT INTO public.calendar_group_member VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-37b1-7fb1-98c5-c6cb1b7bf8be', '01a21fbb-34ae-71b6-9803-a8912fd2a841');
INSERT INTO public.calendar_group_member VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-37bb-785c-b3cc-a15c35a0f6cc', '01a21fbb-34b9-7b12-a4e7-cd6ae33a8336');
INSERT INTO public.calendar_group_member VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-37bb-785c-b3cc-a15c35a0f6cc', '01a21fbb-3369-76e0-9f99-5401c974edad');
INSERT INTO public.calendar_group_member VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-37bb-785c-b3cc-a15c35a0f6cc', '01a21fbb-34ae-71b6-9803-a8912fd2a841');
INSERT INTO public.calendar_group_member VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-37be-7f56-a004-2d3cc86b7445', '01a21fbb-34b9-7b12-a4e7-cd6ae33a8336');
INSERT INTO public.calendar_group_member VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-37be-7f56-a004-2d3cc86b7445', '01a21fbb-3369-76e0-9f99-5401c974edad');
INSERT INTO public.calendar_group_member VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-37be-7f56-a004-2d3cc86b7445', '01a21fbb-34ce-7a40-a41e-e48abf73d9a5');
INSERT INTO public.calendar_group_member VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-37be-7f56-a004-2d3cc86b7445', '01a21fbb-34ae-71b6-9803-a8912fd2a841');
INSERT INTO public.calendar_role VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-3369-76e0-9f99-5401c974edad', '01a21fbb-31a3-7bf0-826c-eaab066583b8', 'editor');
INSERT INTO public.calendar_role VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-34ae-71b6-9803-a8912fd2a841', '01a21fbb-31a3-7bf0-826c-eaab066583b8', 'editor');
INSERT INTO public.calendar_role VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-34d6-7aeb-b478-7353fa70392c', '01a21fbb-31a3-7bf0-826c-eaab066583b8', 'editor');
INSERT INTO public.calendar_role VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-34c5-76c8-9d08-77d5fcfd6f48', '01a21fbb-321f-773f-a12f-65905bdac863', 'contributor');
INSERT INTO public.calendar_role VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-34dd-7c61-8f66-2860f21d7767', '01a21fbb-32fe-7e75-be8e-d8336c1bf2ff', 'reader');
INSERT INTO public.category VALUES ('01a21fbb-355b-7719-90de-dcda80b561d3', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'Assessment', 'madder', NULL, NULL);
INSERT INTO public.category VALUES ('01a21fbb-3565-7615-8e90-69b4900aedec', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'Training', 'kelp', NULL, NULL);
INSERT INTO public.category VALUES ('01a21fbb-3567-7d3c-a6b9-d859ccc43ea4', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'Regatta', 'fjord', NULL, NULL);
INSERT INTO public.category VALUES ('01a21fbb-3569-78a3-871a-20d4237c376c', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'Occasion', 'plum', NULL, NULL);
INSERT INTO public.edition VALUES ('01a21fbb-3a0d-76a8-aa03-92596b701f5a', '01a21fbb-30d8-755c-9680-d87d45dee00b', NULL, 'when-slipway-and-hall-are-taken', '2c6c7a8a-ff6b-48a9-9a3d-f40de2e11145', '4cc8c5a3-dca6-4972-b14b-1f108579fbb2', 'When slipway and hall are taken', 'everyone', '{"cap": "times", "feed": "series", "look": {"size": "normal", "view": "week", "clock": "reader", "dates": "short", "views": ["week", "day", "smallMonth"], "corner": "square", "legend": true, "scheme": "reader", "density": "normal", "onEntry": "details", "palette": "plain", "grouping": "day", "zoneLabel": true, "navigation": true, "severalDays": "each"}, "name": "When slipway and hall are taken", "sources": [{"calendarId": "01a21fbb-34d6-7aeb-b478-7353fa70392c"}], "audience": "everyone", "withBreaks": false, "withCancelled": true, "withUnfinished": false, "mergesLookAlikes": false, "tellsPlatesOfBusy": true}', 1, '2026-11-23 12:00:00.722+00', NULL, 2, 0, 0);
INSERT INTO public.edition VALUES ('01a21fbb-34d8-7b9f-afde-235afbd2c097', '01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-34d6-7aeb-b478-7353fa70392c', 'slipway-and-hall', 'a50db27d-016e-458c-aca2-b2061ee7f7b5', '074c5834-9766-4a41-a14d-e3774e1e65b7', NULL, NULL, NULL, 1, '2026-11-23 12:00:00.722+00', NULL, 7, 0, 0);
INSERT INTO public.edition VALUES ('01a21fbb-34df-75b2-8005-13e1d1e6e1ed', '01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-34dd-7c61-8f66-2860f21d7767', 'staff-room', 'be18be57-fde3-4aa0-ac3b-bea5ac72393a', '4dc7fa4d-2357-4582-951f-51d6570f3a84', NULL, NULL, NULL, 1, '2026-11-23 12:00:00.722+00', NULL, 6, 0, 0);
INSERT INTO public.edition VALUES ('01a21fbb-3465-71b8-ab62-883a5eef3f15', '01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-3369-76e0-9f99-5401c974edad', 'port-watch', 'bce54977-53b7-434f-8802-ff2a59e8abe2', 'ba1a13e0-5016-4f0e-a2ba-5b6f83f7f896', NULL, NULL, NULL, 1, '2026-11-23 12:00:00.722+00', NULL, 18, 10, 0);
INSERT INTO public.edition VALUES ('01a21fbb-3a03-7d4b-8771-23796ef4b623', '01a21fbb-30d8-755c-9680-d87d45dee00b', NULL, 'crew-families', 'deb36b87-d8b9-4fff-aeab-8f9863366863', '6402826a-f29e-4dbb-a17f-6ef738b91154', 'Crew families', 'link', '{"cap": "complete", "feed": "series", "look": {"size": "normal", "view": "week", "clock": "reader", "dates": "short", "corner": "square", "legend": true, "scheme": "reader", "density": "normal", "onEntry": "details", "palette": "heath", "grouping": "day", "zoneLabel": true, "navigation": true, "severalDays": "each"}, "name": "Crew families", "sources": [{"calendarId": "01a21fbb-34b9-7b12-a4e7-cd6ae33a8336"}, {"calendarId": "01a21fbb-34ce-7a40-a41e-e48abf73d9a5"}], "audience": "link", "withBreaks": false, "withCancelled": true, "withUnfinished": false, "mergesLookAlikes": true, "tellsPlatesOfBusy": false}', 1, '2026-11-23 12:00:00.722+00', NULL, 14, 14, 0);
INSERT INTO public.edition VALUES ('01a21fbb-34b4-717f-b0d1-2733f8a6cde3', '01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-34ae-71b6-9803-a8912fd2a841', 'starboard-watch', '5db3e363-4adc-4138-a705-3462d638e30d', '8107c0fa-1085-4788-abda-f9dfcc997c0b', NULL, NULL, NULL, 1, '2026-11-23 12:00:00.722+00', NULL, 11, 11, 0);
INSERT INTO public.edition VALUES ('01a21fbb-34bf-7c99-a2fa-17f560924c53', '01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-34b9-7b12-a4e7-cd6ae33a8336', 'senior-crew', '5feb3e95-ceca-4caa-b939-b241ada2321e', '96ca1d08-0926-40d8-b6ab-befd081df4c8', NULL, NULL, NULL, 1, '2026-11-23 12:00:00.722+00', NULL, 11, 11, 0);
INSERT INTO public.edition VALUES ('01a21fbb-34c8-7716-8387-5e52434a01d7', '01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-34c5-76c8-9d08-77d5fcfd6f48', 'rowing-club', '11011469-07bc-4349-b6ce-76cfc861475f', 'c8642d9d-5f2a-4621-afd4-b2988878a1eb', NULL, NULL, NULL, 1, '2026-11-23 12:00:00.722+00', NULL, 12, 10, 0);
INSERT INTO public.edition VALUES ('01a21fbb-39f5-7e70-87a8-1d9ea9ab9006', '01a21fbb-30d8-755c-9680-d87d45dee00b', NULL, 'next-at-school', '3f146229-b233-4c69-aa3c-435ef6d251e4', '1e2d0af3-c851-45d2-a058-875d10df7142', 'Next at school', 'everyone', '{"cap": "complete", "feed": "dates", "look": {"size": "normal", "view": "list", "clock": "twentyFour", "dates": "short", "title": "Next at school", "views": ["list"], "corner": "square", "legend": false, "scheme": "reader", "density": "tight", "onEntry": "details", "grouping": "day", "zoneLabel": true, "navigation": false, "severalDays": "each"}, "name": "Next at school", "limit": 6, "window": {"to": "open", "from": "now", "withPast": false}, "sources": [{"calendarId": "01a21fbb-3369-76e0-9f99-5401c974edad"}, {"calendarId": "01a21fbb-34ae-71b6-9803-a8912fd2a841"}, {"calendarId": "01a21fbb-34b9-7b12-a4e7-cd6ae33a8336"}, {"calendarId": "01a21fbb-34ce-7a40-a41e-e48abf73d9a5"}], "audience": "everyone", "withBreaks": false, "withCancelled": true, "withUnfinished": false, "mergesLookAlikes": true, "tellsPlatesOfBusy": false}', 1, '2026-11-23 12:00:00.722+00', NULL, 13, 13, 0);
INSERT INTO public.edition VALUES ('01a21fbb-34d1-7e4c-baf4-ceb97f2adfc4', '01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-34ce-7a40-a41e-e48abf73d9a5', 'whole-school', 'b1de6fa1-1a74-4a0d-93c1-dda7242613d3', '71b1a687-05b8-4847-8d3a-68be5b896c0c', NULL, NULL, NULL, 1, '2026-11-23 12:00:00.722+00', NULL, 24, 24, 0);
INSERT INTO public.edition VALUES ('01a21fbb-39fb-7325-ae7f-c9f58533d978', '01a21fbb-30d8-755c-9680-d87d45dee00b', NULL, 'great-days-with-pictures', '7eb36fa7-1162-44f7-9617-3190c214ce7e', 'ad6f47e6-6097-4be7-8066-56687d4f865d', 'Great days, with pictures', 'everyone', '{"cap": "complete", "feed": "dates", "look": {"size": "normal", "view": "cards", "clock": "reader", "dates": "long", "title": "Great days at Pinewick", "views": ["cards", "list"], "corner": "soft", "legend": true, "scheme": "reader", "density": "normal", "onEntry": "details", "palette": "quay", "grouping": "day", "zoneLabel": true, "navigation": true, "severalDays": "each"}, "name": "Great days, with pictures", "window": {"to": "months", "from": "today", "count": 6, "withPast": false}, "sources": [{"filter": {"mode": "except", "text": "Assembly"}, "calendarId": "01a21fbb-34ce-7a40-a41e-e48abf73d9a5"}, {"filter": {"mode": "only", "text": "exam"}, "calendarId": "01a21fbb-34b9-7b12-a4e7-cd6ae33a8336"}], "audience": "everyone", "withBreaks": false, "withCancelled": true, "withUnfinished": false, "mergesLookAlikes": true, "tellsPlatesOfBusy": false}', 1, '2026-11-23 12:00:00.722+00', NULL, 13, 13, 0);
INSERT INTO public.edition VALUES ('01a21fbb-3909-73ab-b018-03b41e472f24', '01a21fbb-30d8-755c-9680-d87d45dee00b', NULL, 'juniors-for-families', '12efeef1-65f6-4ae9-98ba-5cae5ce3ddfc', '42088e28-ee80-4d19-95cc-ad019fb241c5', 'Juniors for families', 'everyone', '{"cap": "complete", "feed": "series", "look": {"size": "normal", "view": "month", "clock": "twentyFour", "dates": "short", "intro": "Both watches and the whole school. Questions to the office.", "title": "Dates for junior families", "views": ["month", "week", "list"], "corner": "square", "legend": true, "scheme": "reader", "density": "normal", "onEntry": "details", "grouping": "day", "zoneLabel": true, "navigation": true, "severalDays": "each"}, "name": "Juniors for families", "window": {"to": "endOfYear", "from": "term", "withPast": true}, "sources": [{"calendarId": "01a21fbb-3369-76e0-9f99-5401c974edad"}, {"calendarId": "01a21fbb-34ae-71b6-9803-a8912fd2a841"}, {"calendarId": "01a21fbb-34ce-7a40-a41e-e48abf73d9a5"}, {"calendarId": "01a21fbb-34c5-76c8-9d08-77d5fcfd6f48"}], "audience": "everyone", "withBreaks": true, "withCancelled": true, "withUnfinished": false, "mergesLookAlikes": true, "tellsPlatesOfBusy": false}', 1, '2026-11-23 12:00:00.722+00', NULL, 13, 13, 0);
INSERT INTO public.edition VALUES ('01a21fbb-3a12-7dcf-835b-418b834001ac', '01a21fbb-30d8-755c-9680-d87d45dee00b', NULL, 'everything-for-the-staff', '4e5db2f2-8d5e-4d80-9510-570ef1b74d8a', '63728600-c235-4afe-9ca6-cbff3605e51f', 'Everything, for the staff', 'members', '{"cap": "complete", "feed": "series", "look": {"size": "normal", "view": "week", "clock": "reader", "dates": "short", "corner": "square", "legend": true, "scheme": "reader", "density": "normal", "onEntry": "details", "grouping": "day", "zoneLabel": true, "navigation": true, "severalDays": "each"}, "name": "Everything, for the staff", "sources": [{"calendarId": "01a21fbb-3369-76e0-9f99-5401c974edad"}, {"calendarId": "01a21fbb-34ae-71b6-9803-a8912fd2a841"}, {"calendarId": "01a21fbb-34b9-7b12-a4e7-cd6ae33a8336"}, {"calendarId": "01a21fbb-34ce-7a40-a41e-e48abf73d9a5"}, {"calendarId": "01a21fbb-34c5-76c8-9d08-77d5fcfd6f48"}, {"calendarId": "01a21fbb-34d6-7aeb-b478-7353fa70392c"}], "audience": "members", "withBreaks": true, "withCancelled": true, "withUnfinished": true, "mergesLookAlikes": true, "tellsPlatesOfBusy": false}', 1, '2026-11-23 12:00:00.722+00', NULL, 13, 13, 0);
INSERT INTO public.edition_calendar_name VALUES ('01a21fbb-34b4-717f-b0d1-2733f8a6cde3', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'starboard-watch', '01a21fbb-34ae-71b6-9803-a8912fd2a841');
INSERT INTO public.edition_calendar_name VALUES ('01a21fbb-34b4-717f-b0d1-2733f8a6cde3', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'SW', '01a21fbb-34ae-71b6-9803-a8912fd2a841');
INSERT INTO public.edition_calendar_name VALUES ('01a21fbb-3465-71b8-ab62-883a5eef3f15', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'port-watch', '01a21fbb-3369-76e0-9f99-5401c974edad');
INSERT INTO public.edition_calendar_name VALUES ('01a21fbb-3465-71b8-ab62-883a5eef3f15', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'PW', '01a21fbb-3369-76e0-9f99-5401c974edad');
INSERT INTO public.edition_calendar_name VALUES ('01a21fbb-34c8-7716-8387-5e52434a01d7', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'rowing-club', '01a21fbb-34c5-76c8-9d08-77d5fcfd6f48');
INSERT INTO public.edition_calendar_name VALUES ('01a21fbb-34c8-7716-8387-5e52434a01d7', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'ROW', '01a21fbb-34c5-76c8-9d08-77d5fcfd6f48');
INSERT INTO public.edition_calendar_name VALUES ('01a21fbb-34bf-7c99-a2fa-17f560924c53', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'senior-crew', '01a21fbb-34b9-7b12-a4e7-cd6ae33a8336');
INSERT INTO public.edition_calendar_name VALUES ('01a21fbb-34bf-7c99-a2fa-17f560924c53', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'CREW', '01a21fbb-34b9-7b12-a4e7-cd6ae33a8336');
INSERT INTO public.edition_calendar_name VALUES ('01a21fbb-34d8-7b9f-afde-235afbd2c097', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'slipway-and-hall', '01a21fbb-34d6-7aeb-b478-7353fa70392c');
INSERT INTO public.edition_calendar_name VALUES ('01a21fbb-34d8-7b9f-afde-235afbd2c097', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'SLIP', '01a21fbb-34d6-7aeb-b478-7353fa70392c');
INSERT INTO public.edition_calendar_name VALUES ('01a21fbb-34d1-7e4c-baf4-ceb97f2adfc4', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'whole-school', '01a21fbb-34ce-7a40-a41e-e48abf73d9a5');
INSERT INTO public.edition_calendar_name VALUES ('01a21fbb-34d1-7e4c-baf4-ceb97f2adfc4', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'SCH', '01a21fbb-34ce-7a40-a41e-e48abf73d9a5');
INSERT INTO public.edition_calendar_name VALUES ('01a21fbb-3909-73ab-b018-03b41e472f24', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'PW', '01a21fbb-3369-76e0-9f99-5401c974edad');
INSERT INTO public.edition_calendar_name VALUES ('01a21fbb-3909-73ab-b018-03b41e472f24', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'port-watch', '01a21fbb-3369-76e0-9f99-5401c974edad');
INSERT INTO public.edition_calendar_name VALUES ('01a21fbb-3909-73ab-b018-03b41e472f24', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'SW', '01a21fbb-34ae-71b6-9803-a8912fd2a841');
INSERT INTO public.edition_calendar_name VALUES ('01a21fbb-3909-73ab-b018-03b41e472f24', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'starboard-watch', '01a21fbb-34ae-71b6-9803-a8912fd2a841');
INSERT INTO public.edition_calendar_name VALUES ('01a21fbb-3909-73ab-b018-03b41e472f24', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'ROW', '01a21fbb-34c5-76c8-9d08-77d5fcfd6f48');
INSERT INTO public.edition_calendar_name VALUES ('01a21fbb-3909-73ab-b018-03b41e472f24', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'rowing-club', '01a21fbb-34c5-76c8-9d08-77d5fcfd6f48');
INSERT INTO public.edition_calendar_name VALUES ('01a21fbb-3909-73ab-b018-03b41e472f24', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'SCH', '01a21fbb-34ce-7a40-a41e-e48abf73d9a5');
INSERT INTO public.edition_calendar_name VALUES ('01a21fbb-3909-73ab-b018-03b41e472f24', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'whole-school', '01a21fbb-34ce-7a40-a41e-e48abf73d9a5');
INSERT INTO public.edition_calendar_name VALUES ('01a21fbb-39f5-7e70-87a8-1d9ea9ab9006', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'PW', '01a21fbb-3369-76e0-9f99-5401c974edad');
INSERT INTO public.edition_calendar_name VALUES ('01a21fbb-39f5-7e70-87a8-1d9ea9ab9006', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'port-watch', '01a21fbb-3369-76e0-9f99-5401c974edad');
INSERT INTO public.edition_calendar_name VALUES ('01a21fbb-39f5-7e70-87a8-1d9ea9ab9006', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'SW', '01a21fbb-34ae-71b6-9803-a8912fd2a841');
INSERT INTO public.edition_calendar_name VALUES ('01a21fbb-39f5-7e70-87a8-1d9ea9ab9006', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'starboard-watch', '01a21fbb-34ae-71b6-9803-a8912fd2a841');
INSERT INTO public.edition_calendar_name VALUES ('01a21fbb-39f5-7e70-87a8-1d9ea9ab9006', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'CREW', '01a21fbb-34b9-7b12-a4e7-cd6ae33a8336');
INSERT INTO public.edition_calendar_name VALUES ('01a21fbb-39f5-7e70-87a8-1d9ea9ab9006', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'senior-crew', '01a21fbb-34b9-7b12-a4e7-cd6ae33a8336');
INSERT INTO public.edition_calendar_name VALUES ('01a21fbb-39f5-7e70-87a8-1d9ea9ab9006', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'SCH', '01a21fbb-34ce-7a40-a41e-e48abf73d9a5');
INSERT INTO public.edition_calendar_name VALUES ('01a21fbb-39f5-7e70-87a8-1d9ea9ab9006', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'whole-school', '01a21fbb-34ce-7a40-a41e-e48abf73d9a5');
INSERT INTO public.edition_calendar_name VALUES ('01a21fbb-3a03-7d4b-8771-23796ef4b623', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'senior-crew', '01a21fbb-34b9-7b12-a4e7-cd6ae33a8336');
INSERT INTO public.edition_calendar_name VALUES ('01a21fbb-3a03-7d4b-8771-23796ef4b623', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'CREW', '01a21fbb-34b9-7b12-a4e7-cd6ae33a8336');
INSERT INTO public.edition_calendar_name VALUES ('01a21fbb-3a03-7d4b-8771-23796ef4b623', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'whole-school', '01a21fbb-34ce-7a40-a41e-e48abf73d9a5');
INSERT INTO public.edition_calendar_name VALUES ('01a21fbb-3a03-7d4b-8771-23796ef4b623', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'SCH', '01a21fbb-34ce-7a40-a41e-e48abf73d9a5');
INSERT INTO public.edition_calendar_name VALUES ('01a21fbb-39fb-7325-ae7f-c9f58533d978', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'whole-school', '01a21fbb-34ce-7a40-a41e-e48abf73d9a5');
INSERT INTO public.edition_calendar_name VALUES ('01a21fbb-39fb-7325-ae7f-c9f58533d978', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'SCH', '01a21fbb-34ce-7a40-a41e-e48abf73d9a5');
INSERT INTO public.edition_calendar_name VALUES ('01a21fbb-39fb-7325-ae7f-c9f58533d978', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'senior-crew', '01a21fbb-34b9-7b12-a4e7-cd6ae33a8336');
INSERT INTO public.edition_calendar_name VALUES ('01a21fbb-39fb-7325-ae7f-c9f58533d978', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'CREW', '01a21fbb-34b9-7b12-a4e7-cd6ae33a8336');
INSERT INTO public.edition_calendar_name VALUES ('01a21fbb-3a0d-76a8-aa03-92596b701f5a', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'slipway-and-hall', '01a21fbb-34d6-7aeb-b478-7353fa70392c');
INSERT INTO public.edition_calendar_name VALUES ('01a21fbb-3a0d-76a8-aa03-92596b701f5a', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'SLIP', '01a21fbb-34d6-7aeb-b478-7353fa70392c');
INSERT INTO public.edition_source VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-3465-71b8-ab62-883a5eef3f15', '01a21fbb-3369-76e0-9f99-5401c974edad');
INSERT INTO public.edition_source VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-34b4-717f-b0d1-2733f8a6cde3', '01a21fbb-34ae-71b6-9803-a8912fd2a841');
INSERT INTO public.edition_source VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-34bf-7c99-a2fa-17f560924c53', '01a21fbb-34b9-7b12-a4e7-cd6ae33a8336');
INSERT INTO public.edition_source VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-34c8-7716-8387-5e52434a01d7', '01a21fbb-34c5-76c8-9d08-77d5fcfd6f48');
INSERT INTO public.edition_source VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-34d1-7e4c-baf4-ceb97f2adfc4', '01a21fbb-34ce-7a40-a41e-e48abf73d9a5');
INSERT INTO public.edition_source VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-34d8-7b9f-afde-235afbd2c097', '01a21fbb-34d6-7aeb-b478-7353fa70392c');
INSERT INTO public.edition_source VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-34df-75b2-8005-13e1d1e6e1ed', '01a21fbb-34dd-7c61-8f66-2860f21d7767');
INSERT INTO public.edition_source VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-3909-73ab-b018-03b41e472f24', '01a21fbb-3369-76e0-9f99-5401c974edad');
INSERT INTO public.edition_source VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-3909-73ab-b018-03b41e472f24', '01a21fbb-34ae-71b6-9803-a8912fd2a841');
INSERT INTO public.edition_source VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-3909-73ab-b018-03b41e472f24', '01a21fbb-34c5-76c8-9d08-77d5fcfd6f48');
INSERT INTO public.edition_source VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-3909-73ab-b018-03b41e472f24', '01a21fbb-34ce-7a40-a41e-e48abf73d9a5');
INSERT INTO public.edition_source VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-39f5-7e70-87a8-1d9ea9ab9006', '01a21fbb-3369-76e0-9f99-5401c974edad');
INSERT INTO public.edition_source VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-39f5-7e70-87a8-1d9ea9ab9006', '01a21fbb-34ae-71b6-9803-a8912fd2a841');
INSERT INTO public.edition_source VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-39f5-7e70-87a8-1d9ea9ab9006', '01a21fbb-34b9-7b12-a4e7-cd6ae33a8336');
INSERT INTO public.edition_source VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-39f5-7e70-87a8-1d9ea9ab9006', '01a21fbb-34ce-7a40-a41e-e48abf73d9a5');
INSERT INTO public.edition_source VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-39fb-7325-ae7f-c9f58533d978', '01a21fbb-34b9-7b12-a4e7-cd6ae33a8336');
INSERT INTO public.edition_source VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-39fb-7325-ae7f-c9f58533d978', '01a21fbb-34ce-7a40-a41e-e48abf73d9a5');
INSERT INTO public.edition_source VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-3a03-7d4b-8771-23796ef4b623', '01a21fbb-34b9-7b12-a4e7-cd6ae33a8336');
INSERT INTO public.edition_source VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-3a03-7d4b-8771-23796ef4b623', '01a21fbb-34ce-7a40-a41e-e48abf73d9a5');
INSERT INTO public.edition_source VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-3a0d-76a8-aa03-92596b701f5a', '01a21fbb-34d6-7aeb-b478-7353fa70392c');
INSERT INTO public.edition_source VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-3a12-7dcf-835b-418b834001ac', '01a21fbb-3369-76e0-9f99-5401c974edad');
INSERT INTO public.edition_source VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-3a12-7dcf-835b-418b834001ac', '01a21fbb-34ae-71b6-9803-a8912fd2a841');
INSERT INTO public.edition_source VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-3a12-7dcf-835b-418b834001ac', '01a21fbb-34b9-7b12-a4e7-cd6ae33a8336');
INSERT INTO public.edition_source VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-3a12-7dcf-835b-418b834001ac', '01a21fbb-34c5-76c8-9d08-77d5fcfd6f48');
INSERT INTO public.edition_source VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-3a12-7dcf-835b-418b834001ac', '01a21fbb-34ce-7a40-a41e-e48abf73d9a5');
INSERT INTO public.edition_source VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-3a12-7dcf-835b-418b834001ac', '01a21fbb-34d6-7aeb-b478-7353fa70392c');
INSERT INTO public.event VALUES ('01a21fbb-3645-74ed-9e1e-eb1816749463', '01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-3369-76e0-9f99-5401c974edad', 'c7024191-8606-4472-bd7f-f75163d1a3b0', 'Boat lab', 'Slipway', '<p>Bring oilskins and closed shoes. Sign-up for the safety boat: <a href="https://pinewick.example/rota" target="_blank" rel="noopener noreferrer">rota sheet</a>.</p>', 'Bring oilskins and closed shoes. Sign-up for the safety boat: rota sheet (https://pinewick.example/rota).', 'live', false, '2026-09-08 14:00:00', '2026-09-08 15:30:00', 'America/Halifax', 'FREQ=WEEKLY;UNTIL=20270402T170000Z;BYDAY=TU,TH', '["2026-09-08 17:00:00+00","2027-04-01 18:30:00+00"]', 1, '2026-10-24 12:00:00.722+00', NULL, NULL, '{practical}', '{}', '{}', 'skip', NULL, NULL, NULL, NULL, NULL, '[]', '[]', '', '', NULL, NULL, NULL, NULL, NULL, '01a21fbb-31a3-7bf0-826c-eaab066583b8');
INSERT INTO public.event VALUES ('01a21fbb-3659-729e-ae4f-3425eb92a0af', '01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-34ae-71b6-9803-a8912fd2a841', '802280b2-3d02-47e0-9e9f-a6dc6eda7634', 'Knots and lines', 'Loft', '', '', 'live', false, '2026-09-07 11:00:00', '2026-09-07 12:30:00', 'America/Halifax', 'FREQ=WEEKLY;UNTIL=20270402T140000Z;BYDAY=MO', '["2026-09-07 14:00:00+00","2027-03-29 15:30:00+00"]', 1, '2026-10-24 12:00:00.722+00', NULL, NULL, '{}', '{}', '{}', 'skip', NULL, NULL, NULL, NULL, NULL, '[]', '[]', '', '', NULL, NULL, NULL, NULL, NULL, '01a21fbb-31a3-7bf0-826c-eaab066583b8');
INSERT INTO public.event VALUES ('01a21fbb-3677-7a1d-8ed8-09181d11a9c6', '01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-34ae-71b6-9803-a8912fd2a841', 'fcbcef1c-de1a-4497-8d97-81ba4ba66cf5', 'Marine science', 'Lab', '', '', 'live', false, '2026-09-10 13:00:00', '2026-09-10 14:30:00', 'America/Halifax', 'FREQ=WEEKLY;UNTIL=20270402T160000Z;BYDAY=TH', '["2026-09-10 16:00:00+00","2027-04-01 17:30:00+00"]', 1, '2026-10-24 12:00:00.722+00', NULL, NULL, '{}', '{}', '{}', 'skip', NULL, NULL, NULL, NULL, NULL, '[]', '[]', '', '', NULL, NULL, NULL, NULL, NULL, '01a21fbb-31a3-7bf0-826c-eaab066583b8');
INSERT INTO public.event VALUES ('01a21fbb-3688-7d27-84a9-d6497235d85a', '01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-34ae-71b6-9803-a8912fd2a841', '15e1c31e-8c20-4a58-a55f-92b7429848d2', 'Tide-table survey', 'Grey Point', '', '', 'live', false, '2026-09-07 09:00:00', '2026-09-07 11:00:00', 'America/Halifax', NULL, '["2026-09-07 12:00:00+00",)', 1, '2026-10-24 12:00:00.722+00', NULL, NULL, '{practical}', '{}', '{}', 'ignore', '{2}', '{5}', '2027-04-02', NULL, NULL, '[]', '[]', '', '', NULL, NULL, NULL, NULL, NULL, '01a21fbb-31a3-7bf0-826c-eaab066583b8');
INSERT INTO public.event VALUES ('01a21fbb-3697-7da7-8e01-c2b94771967d', '01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-34b9-7b12-a4e7-cd6ae33a8336', 'c4f8decd-fa98-4563-8bb6-4083ab6f0579', 'Night pilotage', 'Chart room', '', '', 'live', false, '2026-09-08 16:00:00', '2026-09-08 18:00:00', 'America/Halifax', 'FREQ=WEEKLY;UNTIL=20270402T190000Z;BYDAY=TU', '["2026-09-08 19:00:00+00","2027-03-30 21:00:00+00"]', 1, '2026-10-24 12:00:00.722+00', NULL, NULL, '{}', '{}', '{}', 'skip', NULL, NULL, NULL, NULL, NULL, '[]', '[]', '', '', NULL, NULL, NULL, NULL, NULL, '01a21fbb-311c-7114-a480-b3af59fe0dab');
INSERT INTO public.event VALUES ('01a21fbb-369c-765f-8eca-2ee467abd149', '01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-34b9-7b12-a4e7-cd6ae33a8336', '9005839b-d56a-4c31-b870-749ab05dbeb5', 'Engine practical', 'Shed', '', '', 'live', false, '2026-09-09 09:00:00', '2026-09-09 12:00:00', 'America/Halifax', 'FREQ=WEEKLY;UNTIL=20270402T120000Z;BYDAY=WE', '["2026-09-09 12:00:00+00","2027-03-31 15:00:00+00"]', 1, '2026-10-24 12:00:00.722+00', NULL, NULL, '{practical}', '{}', '{}', 'skip', NULL, NULL, NULL, NULL, NULL, '[]', '[]', '', '', NULL, NULL, NULL, NULL, NULL, '01a21fbb-311c-7114-a480-b3af59fe0dab');
INSERT INTO public.event VALUES ('01a21fbb-36a1-7d38-b3a8-68dd6f72c580', '01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-3369-76e0-9f99-5401c974edad', 'af566e37-8675-4772-abc7-42487ad709de', 'Chart exercise 4', 'Chart room', '<p>Hand in at the chart room.</p>', 'Hand in at the chart room.', 'live', false, '2026-11-25 16:00:00', '2026-11-25 16:00:00', 'America/Halifax', NULL, '["2026-11-25 20:00:00+00","2026-11-25 20:00:00+00"]', 1, '2026-10-24 12:00:00.722+00', NULL, '01a21fbb-355b-7719-90de-dcda80b561d3', '{}', '{}', '{}', 'ignore', NULL, NULL, NULL, NULL, NULL, '[]', '[]', '', '', NULL, NULL, NULL, NULL, NULL, '01a21fbb-31a3-7bf0-826c-eaab066583b8');
INSERT INTO public.event VALUES ('01a21fbb-36a6-7454-b46e-ee367f97a0c5', '01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-3369-76e0-9f99-5401c974edad', '83274beb-07f4-46bf-8142-1fd06cfca0dd', 'Tide-table quiz', 'Room 2', '', '', 'live', false, '2026-11-27 11:00:00', '2026-11-27 12:00:00', 'America/Halifax', NULL, '["2026-11-27 15:00:00+00","2026-11-27 16:00:00+00"]', 1, '2026-10-24 12:00:00.722+00', NULL, '01a21fbb-355b-7719-90de-dcda80b561d3', '{}', '{}', '{}', 'ignore', NULL, NULL, NULL, NULL, NULL, '[]', '[]', '', '', NULL, NULL, NULL, NULL, NULL, '01a21fbb-31a3-7bf0-826c-eaab066583b8');
INSERT INTO public.event VALUES ('01a21fbb-36aa-729c-b2fe-e9293d201e25', '01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-34ae-71b6-9803-a8912fd2a841', '77eccbf0-4527-4e9e-b27e-95ccacb28162', 'Survey walk', 'Grey Point', '', '', 'live', false, '2026-12-01 09:00:00', '2026-12-01 15:00:00', 'America/Halifax', NULL, '["2026-12-01 13:00:00+00","2026-12-01 19:00:00+00"]', 1, '2026-10-24 12:00:00.722+00', NULL, NULL, '{}', '{}', '{}', 'ignore', NULL, NULL, NULL, NULL, NULL, '[]', '[]', '', '', NULL, NULL, NULL, NULL, NULL, '01a21fbb-31a3-7bf0-826c-eaab066583b8');
INSERT INTO public.event VALUES ('01a21fbb-36b3-711c-a712-09bb4f54f3ae', '01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-34b9-7b12-a4e7-cd6ae33a8336', 'f4658204-54da-4fbd-b246-14a78cb02c94', 'Exam week', '', '', '', 'live', true, '2026-12-07 00:00:00', '2026-12-12 00:00:00', 'America/Halifax', NULL, '["2026-12-06 04:00:00+00","2026-12-13 06:00:00+00"]', 1, '2026-10-24 12:00:00.722+00', NULL, '01a21fbb-355b-7719-90de-dcda80b561d3', '{}', '{}', '{}', 'ignore', NULL, NULL, NULL, NULL, NULL, '[]', '[]', '', '', NULL, NULL, NULL, NULL, NULL, '01a21fbb-311c-7114-a480-b3af59fe0dab');
INSERT INTO public.event VALUES ('01a21fbb-36b7-7e20-81af-33cad3d6f066', '01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-34b9-7b12-a4e7-cd6ae33a8336', '1dad496a-7be6-4db5-b508-c835a7921207', 'Exam week', '', '', '', 'live', true, '2027-03-22 00:00:00', '2027-03-27 00:00:00', 'America/Halifax', NULL, '["2027-03-21 03:00:00+00","2027-03-28 05:00:00+00"]', 1, '2026-10-24 12:00:00.722+00', NULL, '01a21fbb-355b-7719-90de-dcda80b561d3', '{}', '{}', '{}', 'ignore', NULL, NULL, NULL, NULL, NULL, '[]', '[]', '', '', NULL, NULL, NULL, NULL, NULL, '01a21fbb-311c-7114-a480-b3af59fe0dab');
INSERT INTO public.event VALUES ('01a21fbb-36c3-7754-9adb-6b7efd4470d3', '01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-34c5-76c8-9d08-77d5fcfd6f48', '1bda4844-7deb-410b-ba35-28c6baf8d2bc', 'Head of the Narrows', 'East pier', '', '', 'live', false, '2026-11-28 08:00:00', '2026-11-28 12:30:00', 'America/Halifax', NULL, '["2026-11-28 12:00:00+00","2026-11-28 16:30:00+00"]', 1, '2026-10-24 12:00:00.722+00', NULL, '01a21fbb-3567-7d3c-a6b9-d859ccc43ea4', '{}', '{}', '{}', 'ignore', NULL, NULL, NULL, NULL, NULL, '[]', '[]', '', '', NULL, NULL, NULL, NULL, NULL, '01a21fbb-311c-7114-a480-b3af59fe0dab');
INSERT INTO public.event VALUES ('01a21fbb-36c7-7d11-877c-5ef07d2e5bf3', '01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-34c5-76c8-9d08-77d5fcfd6f48', '1197a2a8-2af9-40f0-a58f-d17a329aaf9d', 'Winter regatta', 'Outer harbour', '', '', 'live', true, '2026-12-11 00:00:00', '2026-12-14 00:00:00', 'America/Halifax', NULL, '["2026-12-10 04:00:00+00","2026-12-15 06:00:00+00"]', 1, '2026-10-24 12:00:00.722+00', NULL, '01a21fbb-3567-7d3c-a6b9-d859ccc43ea4', '{}', '{}', '{}', 'ignore', NULL, NULL, NULL, NULL, NULL, '[]', '[]', '', '', NULL, NULL, NULL, NULL, NULL, '01a21fbb-311c-7114-a480-b3af59fe0dab');
INSERT INTO public.event VALUES ('01a21fbb-36cb-7fa7-ad67-5e89866adc59', '01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-34c5-76c8-9d08-77d5fcfd6f48', 'b9c43f8e-13c4-43b0-b40e-a67caea0754f', 'Spring regatta', 'Outer harbour', '', '', 'live', true, '2027-03-26 00:00:00', '2027-03-29 00:00:00', 'America/Halifax', NULL, '["2027-03-25 03:00:00+00","2027-03-30 05:00:00+00"]', 1, '2026-10-24 12:00:00.722+00', NULL, '01a21fbb-3567-7d3c-a6b9-d859ccc43ea4', '{}', '{}', '{}', 'ignore', NULL, NULL, NULL, NULL, NULL, '[]', '[]', '', '', NULL, NULL, NULL, NULL, NULL, '01a21fbb-311c-7114-a480-b3af59fe0dab');
INSERT INTO public.event VALUES ('01a21fbb-36e6-7221-88d5-7cc696c88e3b', '01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-34ce-7a40-a41e-e48abf73d9a5', '4d39b222-c09e-4fa9-8596-77ed9058d6f7', 'First-Monday drill', 'whole site', '', '', 'live', false, '2026-10-05 10:00:00', '2026-10-05 10:20:00', 'America/Halifax', 'FREQ=MONTHLY;UNTIL=20270402T130000Z;BYDAY=1MO', '["2026-10-05 13:00:00+00","2027-03-01 14:20:00+00"]', 1, '2026-10-24 12:00:00.722+00', NULL, NULL, '{}', '{}', '{}', 'skip', NULL, NULL, NULL, NULL, NULL, '[]', '[]', '', '', NULL, NULL, NULL, NULL, NULL, '01a21fbb-311c-7114-a480-b3af59fe0dab');
INSERT INTO public.event VALUES ('01a21fbb-35b5-74d5-b34e-ae8dce510bde', '01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-3369-76e0-9f99-5401c974edad', '6ff226e0-a47f-4ce4-98fe-511672f9db90', 'Knots and lines', 'Loft', '', '', 'live', false, '2026-09-07 09:00:00', '2026-09-07 10:30:00', 'America/Halifax', 'FREQ=WEEKLY;UNTIL=20270402T120000Z;BYDAY=MO', '["2026-09-07 12:00:00+00","2027-03-29 13:30:00+00"]', 2, '2026-10-24 12:00:00.722+00', NULL, NULL, '{}', '{}', '{}', 'skip', NULL, NULL, NULL, NULL, NULL, '[]', '[]', '', '', NULL, NULL, NULL, NULL, NULL, '01a21fbb-31a3-7bf0-826c-eaab066583b8');
INSERT INTO public.event VALUES ('01a21fbb-36bd-7c88-a7a5-18d7bb0e6024', '01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-34c5-76c8-9d08-77d5fcfd6f48', '5ef5531d-9187-4589-86af-85a7370b022f', 'Ergometers', 'Boathouse', '', '', 'live', false, '2026-09-07 17:30:00', '2026-09-07 19:00:00', 'America/Halifax', 'FREQ=WEEKLY;UNTIL=20270402T203000Z;BYDAY=MO,WE', '["2026-09-07 20:30:00+00","2027-03-31 22:00:00+00"]', 2, '2026-10-24 12:00:00.722+00', NULL, '01a21fbb-3565-7615-8e90-69b4900aedec', '{}', '{}', '{}', 'ignore', NULL, NULL, NULL, NULL, NULL, '[]', '[]', '', '', NULL, NULL, NULL, NULL, NULL, '01a21fbb-311c-7114-a480-b3af59fe0dab');
INSERT INTO public.event VALUES ('01a21fbb-36db-7649-b514-8d1add44ec43', '01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-34ce-7a40-a41e-e48abf73d9a5', '8d5d5981-2294-48b9-bdaa-eda0ae86c954', 'Safety drill', 'whole site', '', '', 'live', true, '2026-11-26 00:00:00', '2026-11-27 00:00:00', 'America/Halifax', NULL, '["2026-11-25 04:00:00+00","2026-11-28 06:00:00+00"]', 2, '2026-10-24 12:00:00.722+00', NULL, NULL, '{}', '{}', '{}', 'ignore', NULL, NULL, NULL, NULL, NULL, '[]', '[]', '', '', NULL, NULL, NULL, NULL, NULL, '01a21fbb-311c-7114-a480-b3af59fe0dab');
INSERT INTO public.event VALUES ('01a21fbb-36af-7284-842b-b669312047d5', '01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-34b9-7b12-a4e7-cd6ae33a8336', '15702308-b933-48f3-8397-8c42ac06c018', 'Radio exam', 'Hall', '', '', 'live', false, '2026-11-27 13:30:00', '2026-11-27 15:00:00', 'America/Halifax', NULL, '["2026-11-27 17:30:00+00","2026-11-27 19:00:00+00"]', 2, '2026-10-24 12:00:00.722+00', NULL, '01a21fbb-355b-7719-90de-dcda80b561d3', '{}', '{}', '{}', 'ignore', NULL, NULL, NULL, NULL, NULL, '[]', '[]', '', 'Two candidates repeat; tell nobody outside.', 'headline', 'times', 'times', NULL, NULL, '01a21fbb-311c-7114-a480-b3af59fe0dab');
INSERT INTO public.event VALUES ('01a21fbb-36d1-79db-8124-9e5cca2a1481', '01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-34c5-76c8-9d08-77d5fcfd6f48', '93b7f109-d111-43d6-bed2-eec61b53f8f7', 'Call with the Oslo rowers', 'by video', '<p>Ask Cy for the address of the call: cy@pinewick.example or 902 555 0143.</p>', 'Ask Cy for the address of the call: cy@pinewick.example or 902 555 0143.', 'live', false, '2026-11-26 18:00:00', '2026-11-26 18:45:00', 'Europe/Oslo', NULL, '["2026-11-26 17:00:00+00","2026-11-26 17:45:00+00"]', 2, '2026-10-24 12:00:00.722+00', NULL, NULL, '{}', '{}', '{}', 'ignore', NULL, NULL, NULL, NULL, NULL, '[]', '[]', '', '', NULL, NULL, NULL, NULL, NULL, '01a21fbb-311c-7114-a480-b3af59fe0dab');
INSERT INTO public.event VALUES ('01a21fbb-36eb-7a1a-89a5-3ee86c3d1b1c', '01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-34ce-7a40-a41e-e48abf73d9a5', '97e3679e-d985-4649-b27a-cc4b4280ccb6', 'Lantern supper', 'Hall', '', '', 'live', false, '2026-12-16 17:00:00', '2026-12-16 20:00:00', 'America/Halifax', NULL, '["2026-12-16 21:00:00+00","2026-12-17 00:00:00+00"]', 2, '2026-10-24 12:00:00.722+00', NULL, '01a21fbb-3569-78a3-871a-20d4237c376c', '{}', '{}', '{}', 'ignore', NULL, NULL, NULL, NULL, NULL, '[]', '[]', '', 'Goes out when the menu is settled.', NULL, NULL, NULL, '2026-11-30', NULL, '01a21fbb-311c-7114-a480-b3af59fe0dab');
INSERT INTO public.event VALUES ('01a21fbb-36f0-7f53-95bd-df113adaf891', '01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-34ce-7a40-a41e-e48abf73d9a5', '2f2a1c40-4a41-4a8c-add4-edb023361305', 'Families’ morning', 'Hall', '', '', 'live', false, '2026-12-05 10:00:00', '2026-12-05 12:00:00', 'America/Halifax', NULL, '["2026-12-05 14:00:00+00","2026-12-05 16:00:00+00"]', 1, '2026-10-24 12:00:00.722+00', NULL, '01a21fbb-3569-78a3-871a-20d4237c376c', '{}', '{}', '{}', 'ignore', NULL, NULL, NULL, NULL, NULL, '[]', '[]', '', '', NULL, NULL, NULL, NULL, NULL, '01a21fbb-311c-7114-a480-b3af59fe0dab');
INSERT INTO public.event VALUES ('01a21fbb-36f4-7514-830c-c942c6153fb0', '01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-34ce-7a40-a41e-e48abf73d9a5', 'e07a7a65-cdd0-4b2d-bca1-740d391861e8', 'Autumn regatta', 'Outer harbour', '', '', 'live', true, '2026-11-07 00:00:00', '2026-11-10 00:00:00', 'America/Halifax', NULL, '["2026-11-06 04:00:00+00","2026-11-11 06:00:00+00"]', 1, '2026-10-24 12:00:00.722+00', NULL, '01a21fbb-3567-7d3c-a6b9-d859ccc43ea4', '{}', '{}', '{}', 'ignore', NULL, NULL, NULL, NULL, NULL, '[]', '[]', '', '', NULL, NULL, NULL, NULL, NULL, '01a21fbb-311c-7114-a480-b3af59fe0dab');
INSERT INTO public.event VALUES ('01a21fbb-36f9-75db-b2b3-2a74b2ad6813', '01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-34ce-7a40-a41e-e48abf73d9a5', 'd5911e89-0887-4309-a1ff-c50aaaf9eebc', 'Assembly', 'Hall', '', '', 'live', false, '2026-09-11 08:30:00', '2026-09-11 08:50:00', 'America/Halifax', 'FREQ=WEEKLY;UNTIL=20270402T113000Z;BYDAY=FR', '["2026-09-11 11:30:00+00","2027-04-02 11:50:00+00"]', 1, '2026-10-24 12:00:00.722+00', NULL, NULL, '{}', '{}', '{}', 'skip', NULL, NULL, NULL, NULL, NULL, '[]', '[]', '', '', NULL, NULL, NULL, NULL, NULL, '01a21fbb-311c-7114-a480-b3af59fe0dab');
INSERT INTO public.event VALUES ('01a21fbb-36fe-7387-ab8f-04df1a6c7191', '01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-34d6-7aeb-b478-7353fa70392c', 'ffd7db31-efaa-4948-a118-e82d8b037cb3', 'Slipway taken', 'Slipway', '', '', 'live', false, '2026-09-08 14:00:00', '2026-09-08 15:30:00', 'America/Halifax', 'FREQ=WEEKLY;UNTIL=20270402T170000Z;BYDAY=TU', '["2026-09-08 17:00:00+00","2027-03-30 18:30:00+00"]', 1, '2026-10-24 12:00:00.722+00', NULL, NULL, '{}', '{}', '{}', 'skip', NULL, NULL, NULL, NULL, NULL, '[]', '[]', '', '', NULL, NULL, NULL, NULL, NULL, '01a21fbb-31a3-7bf0-826c-eaab066583b8');
INSERT INTO public.event VALUES ('01a21fbb-3702-7e5f-9619-aeb0179b7be1', '01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-34d6-7aeb-b478-7353fa70392c', '528bd566-2308-4746-9ed8-04d6442929f5', 'Hall taken', 'Hall', '', '', 'live', false, '2026-11-25 18:00:00', '2026-11-25 21:00:00', 'America/Halifax', NULL, '["2026-11-25 22:00:00+00","2026-11-26 01:00:00+00"]', 1, '2026-10-24 12:00:00.722+00', NULL, NULL, '{}', '{}', '{}', 'ignore', NULL, NULL, NULL, NULL, NULL, '[]', '[]', '', '', NULL, NULL, NULL, NULL, NULL, '01a21fbb-31a3-7bf0-826c-eaab066583b8');
INSERT INTO public.event VALUES ('01a21fbb-3706-7f59-90f6-0e8f016c336b', '01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-34d6-7aeb-b478-7353fa70392c', 'f573c9d5-cb43-4984-a003-014b7f53ceb7', 'Hall taken', 'Hall', '', '', 'live', false, '2026-11-27 13:00:00', '2026-11-27 15:30:00', 'America/Halifax', NULL, '["2026-11-27 17:00:00+00","2026-11-27 19:30:00+00"]', 1, '2026-10-24 12:00:00.722+00', NULL, NULL, '{}', '{}', '{}', 'ignore', NULL, NULL, NULL, NULL, NULL, '[]', '[]', '', '', NULL, NULL, NULL, NULL, NULL, '01a21fbb-31a3-7bf0-826c-eaab066583b8');
INSERT INTO public.event VALUES ('01a21fbb-370a-71f2-a0ce-4561082cd0bb', '01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-34d6-7aeb-b478-7353fa70392c', '816bff92-fca5-4339-9524-cba52209b80c', 'Night watch on the pier', 'East pier', '', '', 'live', false, '2026-11-28 22:00:00', '2026-11-29 06:00:00', 'America/Halifax', NULL, '["2026-11-29 02:00:00+00","2026-11-29 10:00:00+00"]', 1, '2026-10-24 12:00:00.722+00', NULL, NULL, '{}', '{}', '{}', 'ignore', NULL, NULL, NULL, NULL, NULL, '[]', '[]', '', '', NULL, NULL, NULL, NULL, NULL, '01a21fbb-31a3-7bf0-826c-eaab066583b8');
INSERT INTO public.event VALUES ('01a21fbb-370f-7fd3-b8af-f6e452728510', '01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-34dd-7c61-8f66-2860f21d7767', 'f9a9479f-61e7-445a-87f3-a35f70aaf31c', 'Briefing', 'Wardroom', '', '', 'live', false, '2026-09-07 08:15:00', '2026-09-07 08:45:00', 'America/Halifax', 'FREQ=WEEKLY;UNTIL=20270402T111500Z;BYDAY=MO', '["2026-09-07 11:15:00+00","2027-03-29 11:45:00+00"]', 1, '2026-10-24 12:00:00.722+00', NULL, NULL, '{}', '{}', '{}', 'skip', NULL, NULL, NULL, NULL, NULL, '[]', '[]', '', '', NULL, NULL, NULL, NULL, NULL, '01a21fbb-311c-7114-a480-b3af59fe0dab');
INSERT INTO public.event VALUES ('01a21fbb-3713-71be-b3d0-4044e052a203', '01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-34dd-7c61-8f66-2860f21d7767', 'bf13d631-5b9e-4489-a7ee-8a6e55c72cdd', 'Moderation', 'Room 2', '', '', 'live', false, '2026-11-26 15:45:00', '2026-11-26 17:00:00', 'America/Halifax', NULL, '["2026-11-26 19:45:00+00","2026-11-26 21:00:00+00"]', 1, '2026-10-24 12:00:00.722+00', NULL, NULL, '{}', '{}', '{}', 'ignore', NULL, NULL, NULL, NULL, NULL, '[]', '[]', '', '', NULL, NULL, NULL, NULL, NULL, '01a21fbb-311c-7114-a480-b3af59fe0dab');
INSERT INTO public.event VALUES ('01a21fbb-3719-79ac-83a1-c7eb437502f0', '01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-34dd-7c61-8f66-2860f21d7767', '6d83a299-c625-42ce-83e3-5430c9957c93', 'Log book check', 'Wardroom', '', '', 'live', false, '2026-09-30 16:00:00', '2026-09-30 16:30:00', 'America/Halifax', 'FREQ=MONTHLY;UNTIL=20270402T190000Z;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-1', '["2026-09-23 19:00:00+00","2027-04-07 19:30:00+00"]', 1, '2026-10-24 12:00:00.722+00', NULL, NULL, '{}', '{}', '{}', 'move', NULL, NULL, NULL, NULL, NULL, '[]', '[]', '', '', NULL, NULL, NULL, NULL, NULL, '01a21fbb-311c-7114-a480-b3af59fe0dab');
INSERT INTO public.event VALUES ('01a21fbb-3670-7627-95f3-a26b0a10cc01', '01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-34ae-71b6-9803-a8912fd2a841', 'd4328a20-d925-4c58-852a-df36d7bf3892', 'Boat lab', 'Slipway', '', '', 'live', false, '2026-09-09 14:00:00', '2026-09-09 15:30:00', 'America/Halifax', 'FREQ=WEEKLY;UNTIL=20270402T170000Z;BYDAY=WE', '["2026-09-09 17:00:00+00","2027-03-31 18:30:00+00"]', 2, '2026-10-24 12:00:00.722+00', NULL, NULL, '{practical}', '{}', '{}', 'skip', NULL, NULL, NULL, NULL, NULL, '[]', '[]', '', '', NULL, NULL, NULL, NULL, NULL, '01a21fbb-31a3-7bf0-826c-eaab066583b8');
INSERT INTO public.event VALUES ('01a21fbb-36d6-7347-adcd-e204861179ff', '01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-34ce-7a40-a41e-e48abf73d9a5', 'ded7aaf1-f05a-40b0-8ba1-b2ebd2910dc2', 'Open harbour evening', 'Hall', '<p>Boats, knots and chowder for families and friends. <a href="https://pinewick.example/open-harbour" target="_blank" rel="noopener noreferrer">Sign up</a> so that we know how much to cook.</p>', 'Boats, knots and chowder for families and friends. Sign up (https://pinewick.example/open-harbour) so that we know how much to cook.', 'live', false, '2026-11-25 18:30:00', '2026-11-25 20:30:00', 'America/Halifax', NULL, '["2026-11-25 22:30:00+00","2026-11-26 00:30:00+00"]', 2, '2026-10-24 12:00:00.722+00', NULL, '01a21fbb-3569-78a3-871a-20d4237c376c', '{}', '{}', '{}', 'ignore', NULL, NULL, NULL, NULL, NULL, '[{"url": "https://pinewick.example/open-harbour/programme", "label": "Programme"}]', '[{"id": "01a21fbb-389f-7c82-904e-3ff80c6bc996", "name": "Boats in the evening.png", "size": 40414, "type": "image/png", "isPicture": true}, {"id": "01a21fbb-38a9-7279-bdf9-4159d65e07f3", "name": "Open harbour poster.pdf", "size": 645, "type": "application/pdf", "isPicture": false}]', 'Harbour office, office@pinewick.example', 'Chowder for 140; ask the boathouse for the big pot.', NULL, NULL, NULL, NULL, NULL, '01a21fbb-311c-7114-a480-b3af59fe0dab');
INSERT INTO public.event VALUES ('01a21fbb-38ec-794d-bb28-75c3e72f9b35', '01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-34c5-76c8-9d08-77d5fcfd6f48', 'a8e9cf88-655a-40a7-9920-4965c028d671', 'Seat trials', 'Boathouse', '<p>Weigh-in half an hour before.</p>', 'Weigh-in half an hour before.', 'waiting', false, '2026-12-05 08:00:00', '2026-12-05 12:30:00', 'America/Halifax', NULL, '["2026-12-05 12:00:00+00","2026-12-05 16:30:00+00"]', 1, '2026-11-23 12:00:00.722+00', NULL, NULL, '{}', '{}', '{}', 'ignore', NULL, NULL, NULL, NULL, NULL, '[]', '[]', '', '', NULL, NULL, NULL, NULL, NULL, '01a21fbb-321f-773f-a12f-65905bdac863');
INSERT INTO public.event VALUES ('01a21fbc-c182-799c-8aef-8b19b8527a8c', '01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-34ce-7a40-a41e-e48abf73d9a5', 'c94f7be1-38c9-41ce-bd9e-eae88f6f8ae9', 'All there is “to say” 🦑', 'Hall', '<p>Bring <strong>lamps</strong>, see <a href="https://pinewick.example/" target="_blank" rel="noopener noreferrer">the list</a>.</p>', 'Bring lamps, see the list (https://pinewick.example/).', 'live', false, '2026-11-24 14:00:00', '2026-11-24 15:30:00', 'Europe/Oslo', 'FREQ=WEEKLY;COUNT=12;BYDAY=TU,TH', '["2026-11-24 13:00:00+00","2027-03-01 14:30:00+00"]', 3, '2026-11-23 12:01:39+00', NULL, '01a21fbb-355b-7719-90de-dcda80b561d3', '{outdoors,practical}', '{"2027-03-01 14:00:00"}', '{"2026-12-03 14:00:00"}', 'skip', NULL, NULL, NULL, NULL, NULL, '[{"url": "https://pinewick.example/sign-up", "label": "Sign up"}]', '[{"id": "01a21fbc-bfe2-75c8-955e-9d2c1f0d68fe", "name": "Plan & map.pdf", "size": 15, "type": "application/pdf", "isPicture": false}]', 'Office, 0902 555 010', 'Two
lines for editors', 'complete', 'headline', 'times', '2026-11-01', '2027-06-30', '01a21fbb-311c-7114-a480-b3af59fe0dab');
INSERT INTO public.event VALUES ('01a21fbc-e086-7cf4-80fe-0a5e5bafcaa7', '01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-34ce-7a40-a41e-e48abf73d9a5', 'a60a89a8-557f-41a7-89ad-ccbca509f40e', 'All there is “to say” 🦑', 'Hall', '<p>Bring <strong>lamps</strong>, see <a href="https://pinewick.example/" target="_blank" rel="noopener noreferrer">the list</a>.</p>', 'Bring lamps, see the list (https://pinewick.example/).', 'live', false, '2026-11-24 14:00:00', '2026-11-24 15:30:00', 'Europe/Oslo', 'FREQ=WEEKLY;COUNT=6;BYDAY=TU,TH', '["2026-11-24 13:00:00+00","2026-12-11 16:00:00+00"]', 5, '2026-11-23 12:01:47+00', NULL, '01a21fbb-355b-7719-90de-dcda80b561d3', '{outdoors,practical}', '{}', '{"2026-12-03 14:00:00"}', 'skip', NULL, NULL, NULL, NULL, NULL, '[{"url": "https://pinewick.example/sign-up", "label": "Sign up"}]', '[{"id": "01a21fbc-e07d-7de6-86fa-1cb654086d0f", "name": "Plan & map.pdf", "size": 15, "type": "application/pdf", "isPicture": false}]', 'Office, 0902 555 010', 'Two
lines for editors', 'complete', 'headline', 'times', '2026-11-01', '2027-06-30', '01a21fbb-311c-7114-a480-b3af59fe0dab');
INSERT INTO public.event VALUES ('01a21fbc-e56d-7d14-9ee7-a017b1928057', '01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-34ce-7a40-a41e-e48abf73d9a5', '6891601b-e2f6-4afb-b2f2-f22b7c938975', 'Goes on differently', 'Hall', '<p>Bring <strong>lamps</strong>, see <a href="https://pinewick.example/" target="_blank" rel="noopener noreferrer">the list</a>.</p>', 'Bring lamps, see the list (https://pinewick.example/).', 'live', false, '2026-12-15 14:00:00', '2026-12-15 15:30:00', 'Europe/Oslo', 'FREQ=WEEKLY;COUNT=6;BYDAY=TU,TH', '["2026-12-15 13:00:00+00","2027-03-01 14:30:00+00"]', 1, '2026-11-23 12:01:49+00', NULL, '01a21fbb-355b-7719-90de-dcda80b561d3', '{outdoors,practical}', '{"2027-03-01 14:00:00"}', '{}', 'skip', NULL, NULL, NULL, NULL, 'a60a89a8-557f-41a7-89ad-ccbca509f40e', '[{"url": "https://pinewick.example/sign-up", "label": "Sign up"}]', '[{"id": "01a21fbc-e07d-7de6-86fa-1cb654086d0f", "name": "Plan & map.pdf", "size": 15, "type": "application/pdf", "isPicture": false}]', '', 'Two
lines for editors', 'complete', 'headline', 'times', '2026-11-01', '2027-06-30', '01a21fbb-311c-7114-a480-b3af59fe0dab');
INSERT INTO public.event VALUES ('01a21fbc-e9a2-7ec2-8531-1263930a1cd0', '01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-34ce-7a40-a41e-e48abf73d9a5', 'fd047037-e2c1-48c9-92bc-cc4d446034e3', 'By the cycle', 'Hall', '<p>Bring <strong>lamps</strong>, see <a href="https://pinewick.example/" target="_blank" rel="noopener noreferrer">the list</a>.</p>', 'Bring lamps, see the list (https://pinewick.example/).', 'live', true, '2026-11-25 00:00:00', '2026-11-26 00:00:00', 'America/Halifax', NULL, '["2026-11-24 04:00:00+00",)', 1, '2026-11-23 12:01:50+00', NULL, '01a21fbb-355b-7719-90de-dcda80b561d3', '{outdoors,practical}', '{}', '{}', 'ignore', '{1,2}', '{3}', '2027-03-31', NULL, NULL, '[{"url": "https://pinewick.example/sign-up", "label": "Sign up"}]', '[]', 'Office, 0902 555 010', 'Two
lines for editors', NULL, NULL, NULL, NULL, NULL, '01a21fbb-311c-7114-a480-b3af59fe0dab');
INSERT INTO public.event VALUES ('01a21fbc-e9c6-7e88-bb5a-d5876d24dcc4', '01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-34ce-7a40-a41e-e48abf73d9a5', '7c22d32b-8b6a-4dbc-9b14-d6c42d027605', 'To the bin', 'Hall', '<p>Bring <strong>lamps</strong>, see <a href="https://pinewick.example/" target="_blank" rel="noopener noreferrer">the list</a>.</p>', 'Bring lamps, see the list (https://pinewick.example/).', 'live', false, '2026-11-26 09:00:00', '2026-11-26 09:00:00', 'America/Halifax', NULL, '["2026-11-26 13:00:00+00","2026-11-26 13:00:00+00"]', 2, '2026-11-23 12:01:50+00', '2026-11-23 12:01:50+00', '01a21fbb-355b-7719-90de-dcda80b561d3', '{}', '{}', '{}', 'ignore', NULL, NULL, NULL, NULL, NULL, '[]', '[]', 'Office, 0902 555 010', '', NULL, NULL, NULL, NULL, NULL, '01a21fbb-311c-7114-a480-b3af59fe0dab');
INSERT INTO public.event_exception VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-3670-7627-95f3-a26b0a10cc01', '2026-11-25 14:00:00', false, '2026-11-26 15:30:00', '2026-11-26 17:00:00', NULL, NULL, NULL, NULL);
INSERT INTO public.event_exception VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-35b5-74d5-b34e-ae8dce510bde', '2026-11-23 09:00:00', true, NULL, NULL, NULL, NULL, NULL, NULL);
INSERT INTO public.event_exception VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-36bd-7c88-a7a5-18d7bb0e6024', '2026-11-30 17:30:00', false, NULL, NULL, NULL, 'Hall', NULL, NULL);
INSERT INTO public.event_exception VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbc-c182-799c-8aef-8b19b8527a8c', '2026-12-01 14:00:00', true, NULL, NULL, NULL, NULL, NULL, NULL);
INSERT INTO public.event_exception VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbc-c182-799c-8aef-8b19b8527a8c', '2026-12-08 14:00:00', false, NULL, NULL, 'Own title', '', '<p>Its own text</p>', 'Its own text');
INSERT INTO public.event_exception VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbc-e086-7cf4-80fe-0a5e5bafcaa7', '2026-12-01 14:00:00', true, NULL, NULL, NULL, NULL, NULL, NULL);
INSERT INTO public.event_exception VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbc-e086-7cf4-80fe-0a5e5bafcaa7', '2026-12-08 14:00:00', false, NULL, NULL, 'Own title', '', '<p>Its own text</p>', 'Its own text');
INSERT INTO public.event_exception VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbc-e086-7cf4-80fe-0a5e5bafcaa7', '2026-12-10 14:00:00', false, '2026-12-11 16:00:00', '2026-12-11 17:00:00', NULL, NULL, NULL, NULL);
INSERT INTO public.file VALUES ('01a21fbb-389f-7c82-904e-3ff80c6bc996', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'Boats in the evening.png', 'image/png', '\x25504446', '01a21fbb-311c-7114-a480-b3af59fe0dab', '2026-11-23 12:00:00.722+00');
INSERT INTO public.file VALUES ('01a21fbb-38a9-7279-bdf9-4159d65e07f3', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'Open harbour poster.pdf', 'application/pdf', '\x25504446', '01a21fbb-311c-7114-a480-b3af59fe0dab', '2026-11-23 12:00:00.722+00');
INSERT INTO public.file VALUES ('01a21fbc-bfe2-75c8-955e-9d2c1f0d68fe', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'Plan & map.pdf', 'application/pdf', '\x255044462d312e340a2564656d6f0a', '01a21fbb-311c-7114-a480-b3af59fe0dab', '2026-11-23 12:01:39+00');
INSERT INTO public.file VALUES ('01a21fbc-e07d-7de6-86fa-1cb654086d0f', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'Plan & map.pdf', 'application/pdf', '\x255044462d312e340a2564656d6f0a', '01a21fbb-311c-7114-a480-b3af59fe0dab', '2026-11-23 12:01:47+00');
INSERT INTO public.membership VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-311c-7114-a480-b3af59fe0dab', true, NULL, 1);
INSERT INTO public.membership VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-31a3-7bf0-826c-eaab066583b8', false, NULL, 1);
INSERT INTO public.membership VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-321f-773f-a12f-65905bdac863', false, NULL, 1);
INSERT INTO public.membership VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-329f-75bf-bd42-f373e578ac42', false, NULL, 1);
INSERT INTO public.membership VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-32fe-7e75-be8e-d8336c1bf2ff', false, NULL, 1);
INSERT INTO public.organisation VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', 'pinewick', 'Pinewick Harbour School', 'America/Halifax', 'en-GB', 1, 8);
INSERT INTO public.place VALUES ('01a21fbb-352a-70cf-9347-8153eb1db0f6', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'Loft', NULL, NULL, NULL);
INSERT INTO public.place VALUES ('01a21fbb-3545-77d8-b174-c6ac52a3d1e6', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'Lab', NULL, NULL, NULL);
INSERT INTO public.place VALUES ('01a21fbb-3547-7319-97d8-61c6adf2ccfd', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'Chart room', NULL, NULL, NULL);
INSERT INTO public.place VALUES ('01a21fbb-3549-783b-896d-4e09dda1306f', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'Room 2', NULL, NULL, NULL);
INSERT INTO public.place VALUES ('01a21fbb-354b-79ba-a0b8-22323700f4bb', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'Wardroom', NULL, NULL, NULL);
INSERT INTO public.place VALUES ('01a21fbb-354d-7112-b453-8e94e6343e5c', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'Hall', 43.9412, -60.0315, NULL);
INSERT INTO public.place VALUES ('01a21fbb-3550-7c1f-b00a-159694929719', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'Slipway', 43.9405, -60.0289, NULL);
INSERT INTO public.place VALUES ('01a21fbb-3551-76b8-96de-8c118979c39e', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'Boathouse', 43.9401, -60.0281, NULL);
INSERT INTO public.place VALUES ('01a21fbb-3553-7453-a30d-a3eb12ca7634', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'Outer harbour', 43.9378, -60.0214, NULL);
INSERT INTO public.place VALUES ('01a21fbb-3555-7db7-bc41-25dbd0381527', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'Grey Point', 43.9502, -60.0102, NULL);
INSERT INTO public.placement VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-36d6-7347-adcd-e204861179ff', '01a21fbb-3369-76e0-9f99-5401c974edad');
INSERT INTO public.placement VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-36d6-7347-adcd-e204861179ff', '01a21fbb-34ae-71b6-9803-a8912fd2a841');
INSERT INTO public.placement VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-36d6-7347-adcd-e204861179ff', '01a21fbb-34b9-7b12-a4e7-cd6ae33a8336');
INSERT INTO public.placement VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-36db-7649-b514-8d1add44ec43', '01a21fbb-3369-76e0-9f99-5401c974edad');
INSERT INTO public.placement VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-36db-7649-b514-8d1add44ec43', '01a21fbb-34ae-71b6-9803-a8912fd2a841');
INSERT INTO public.placement VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-36db-7649-b514-8d1add44ec43', '01a21fbb-34b9-7b12-a4e7-cd6ae33a8336');
INSERT INTO public.placement VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbc-c182-799c-8aef-8b19b8527a8c', '01a21fbb-3369-76e0-9f99-5401c974edad');
INSERT INTO public.placement VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbc-e086-7cf4-80fe-0a5e5bafcaa7', '01a21fbb-3369-76e0-9f99-5401c974edad');
INSERT INTO public.placement VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbc-e56d-7d14-9ee7-a017b1928057', '01a21fbb-3369-76e0-9f99-5401c974edad');
INSERT INTO public.revision VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-35b5-74d5-b34e-ae8dce510bde', 1, 'made', '01a21fbb-31a3-7bf0-826c-eaab066583b8', '2026-10-24 12:00:00.722+00', '{"end": "2026-09-07T10:30:00", "tags": [], "zone": "America/Halifax", "cycle": null, "extra": [], "files": [], "inBin": false, "links": [], "notes": "", "place": "Loft", "rrule": "FREQ=WEEKLY;UNTIL=20270402T120000Z;BYDAY=MO", "start": "2026-09-07T09:00:00", "state": "live", "title": "Knots and lines", "allDay": false, "capLink": null, "contact": "", "removed": [], "calendar": "01a21fbb-3369-76e0-9f99-5401c974edad", "category": null, "inBreaks": "skip", "showFrom": null, "showUntil": null, "capMembers": null, "exceptions": [], "placements": [], "capEveryone": null, "description": "", "descriptionText": ""}', '01a21fbb-35b4-768a-97ac-d1ad0178320e');
INSERT INTO public.revision VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-3645-74ed-9e1e-eb1816749463', 1, 'made', '01a21fbb-31a3-7bf0-826c-eaab066583b8', '2026-10-24 12:00:00.722+00', '{"end": "2026-09-08T15:30:00", "tags": ["practical"], "zone": "America/Halifax", "cycle": null, "extra": [], "files": [], "inBin": false, "links": [], "notes": "", "place": "Slipway", "rrule": "FREQ=WEEKLY;UNTIL=20270402T170000Z;BYDAY=TU,TH", "start": "2026-09-08T14:00:00", "state": "live", "title": "Boat lab", "allDay": false, "capLink": null, "contact": "", "removed": [], "calendar": "01a21fbb-3369-76e0-9f99-5401c974edad", "category": null, "inBreaks": "skip", "showFrom": null, "showUntil": null, "capMembers": null, "exceptions": [], "placements": [], "capEveryone": null, "description": "<p>Bring oilskins and closed shoes. Sign-up for the safety boat: <a href=\"https://pinewick.example/rota\" target=\"_blank\" rel=\"noopener noreferrer\">rota sheet</a>.</p>", "descriptionText": "Bring oilskins and closed shoes. Sign-up for the safety boat: rota sheet (https://pinewick.example/rota)."}', '01a21fbb-3645-70fd-b245-3279a2a9afc4');
INSERT INTO public.revision VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-3659-729e-ae4f-3425eb92a0af', 1, 'made', '01a21fbb-31a3-7bf0-826c-eaab066583b8', '2026-10-24 12:00:00.722+00', '{"end": "2026-09-07T12:30:00", "tags": [], "zone": "America/Halifax", "cycle": null, "extra": [], "files": [], "inBin": false, "links": [], "notes": "", "place": "Loft", "rrule": "FREQ=WEEKLY;UNTIL=20270402T140000Z;BYDAY=MO", "start": "2026-09-07T11:00:00", "state": "live", "title": "Knots and lines", "allDay": false, "capLink": null, "contact": "", "removed": [], "calendar": "01a21fbb-34ae-71b6-9803-a8912fd2a841", "category": null, "inBreaks": "skip", "showFrom": null, "showUntil": null, "capMembers": null, "exceptions": [], "placements": [], "capEveryone": null, "description": "", "descriptionText": ""}', '01a21fbb-3659-78e4-b0f7-3fb9daa5765a');
INSERT INTO public.revision VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-3670-7627-95f3-a26b0a10cc01', 1, 'made', '01a21fbb-31a3-7bf0-826c-eaab066583b8', '2026-10-24 12:00:00.722+00', '{"end": "2026-09-09T15:30:00", "tags": ["practical"], "zone": "America/Halifax", "cycle": null, "extra": [], "files": [], "inBin": false, "links": [], "notes": "", "place": "Slipway", "rrule": "FREQ=WEEKLY;UNTIL=20270402T170000Z;BYDAY=WE", "start": "2026-09-09T14:00:00", "state": "live", "title": "Boat lab", "allDay": false, "capLink": null, "contact": "", "removed": [], "calendar": "01a21fbb-34ae-71b6-9803-a8912fd2a841", "category": null, "inBreaks": "skip", "showFrom": null, "showUntil": null, "capMembers": null, "exceptions": [], "placements": [], "capEveryone": null, "description": "", "descriptionText": ""}', '01a21fbb-3670-7f2d-98ef-a132b8db6a48');
INSERT INTO public.revision VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-3677-7a1d-8ed8-09181d11a9c6', 1, 'made', '01a21fbb-31a3-7bf0-826c-eaab066583b8', '2026-10-24 12:00:00.722+00', '{"end": "2026-09-10T14:30:00", "tags": [], "zone": "America/Halifax", "cycle": null, "extra": [], "files": [], "inBin": false, "links": [], "notes": "", "place": "Lab", "rrule": "FREQ=WEEKLY;UNTIL=20270402T160000Z;BYDAY=TH", "start": "2026-09-10T13:00:00", "state": "live", "title": "Marine science", "allDay": false, "capLink": null, "contact": "", "removed": [], "calendar": "01a21fbb-34ae-71b6-9803-a8912fd2a841", "category": null, "inBreaks": "skip", "showFrom": null, "showUntil": null, "capMembers": null, "exceptions": [], "placements": [], "capEveryone": null, "description": "", "descriptionText": ""}', '01a21fbb-3677-7d26-aa62-666bb2f6956a');
INSERT INTO public.revision VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-3688-7d27-84a9-d6497235d85a', 1, 'made', '01a21fbb-31a3-7bf0-826c-eaab066583b8', '2026-10-24 12:00:00.722+00', '{"end": "2026-09-07T11:00:00", "tags": ["practical"], "zone": "America/Halifax", "cycle": {"count": null, "until": "2027-04-02", "numbers": [2], "weekdays": [5]}, "extra": [], "files": [], "inBin": false, "links": [], "notes": "", "place": "Grey Point", "rrule": null, "start": "2026-09-07T09:00:00", "state": "live", "title": "Tide-table survey", "allDay": false, "capLink": null, "contact": "", "removed": [], "calendar": "01a21fbb-34ae-71b6-9803-a8912fd2a841", "category": null, "inBreaks": "ignore", "showFrom": null, "showUntil": null, "capMembers": null, "exceptions": [], "placements": [], "capEveryone": null, "description": "", "descriptionText": ""}', '01a21fbb-3688-780b-890e-f6daadb1c8db');
INSERT INTO public.revision VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-3697-7da7-8e01-c2b94771967d', 1, 'made', '01a21fbb-311c-7114-a480-b3af59fe0dab', '2026-10-24 12:00:00.722+00', '{"end": "2026-09-08T18:00:00", "tags": [], "zone": "America/Halifax", "cycle": null, "extra": [], "files": [], "inBin": false, "links": [], "notes": "", "place": "Chart room", "rrule": "FREQ=WEEKLY;UNTIL=20270402T190000Z;BYDAY=TU", "start": "2026-09-08T16:00:00", "state": "live", "title": "Night pilotage", "allDay": false, "capLink": null, "contact": "", "removed": [], "calendar": "01a21fbb-34b9-7b12-a4e7-cd6ae33a8336", "category": null, "inBreaks": "skip", "showFrom": null, "showUntil": null, "capMembers": null, "exceptions": [], "placements": [], "capEveryone": null, "description": "", "descriptionText": ""}', '01a21fbb-3697-748b-a0f1-91ffdb51aecc');
INSERT INTO public.revision VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-369c-765f-8eca-2ee467abd149', 1, 'made', '01a21fbb-311c-7114-a480-b3af59fe0dab', '2026-10-24 12:00:00.722+00', '{"end": "2026-09-09T12:00:00", "tags": ["practical"], "zone": "America/Halifax", "cycle": null, "extra": [], "files": [], "inBin": false, "links": [], "notes": "", "place": "Shed", "rrule": "FREQ=WEEKLY;UNTIL=20270402T120000Z;BYDAY=WE", "start": "2026-09-09T09:00:00", "state": "live", "title": "Engine practical", "allDay": false, "capLink": null, "contact": "", "removed": [], "calendar": "01a21fbb-34b9-7b12-a4e7-cd6ae33a8336", "category": null, "inBreaks": "skip", "showFrom": null, "showUntil": null, "capMembers": null, "exceptions": [], "placements": [], "capEveryone": null, "description": "", "descriptionText": ""}', '01a21fbb-369c-7850-8daf-3edbd7d2fc82');
INSERT INTO public.revision VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-36a1-7d38-b3a8-68dd6f72c580', 1, 'made', '01a21fbb-31a3-7bf0-826c-eaab066583b8', '2026-10-24 12:00:00.722+00', '{"end": "2026-11-25T16:00:00", "tags": [], "zone": "America/Halifax", "cycle": null, "extra": [], "files": [], "inBin": false, "links": [], "notes": "", "place": "Chart room", "rrule": null, "start": "2026-11-25T16:00:00", "state": "live", "title": "Chart exercise 4", "allDay": false, "capLink": null, "contact": "", "removed": [], "calendar": "01a21fbb-3369-76e0-9f99-5401c974edad", "category": "01a21fbb-355b-7719-90de-dcda80b561d3", "inBreaks": "ignore", "showFrom": null, "showUntil": null, "capMembers": null, "exceptions": [], "placements": [], "capEveryone": null, "description": "<p>Hand in at the chart room.</p>", "descriptionText": "Hand in at the chart room."}', '01a21fbb-36a1-7167-b991-0c7bf052cbe6');
INSERT INTO public.revision VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-36a6-7454-b46e-ee367f97a0c5', 1, 'made', '01a21fbb-31a3-7bf0-826c-eaab066583b8', '2026-10-24 12:00:00.722+00', '{"end": "2026-11-27T12:00:00", "tags": [], "zone": "America/Halifax", "cycle": null, "extra": [], "files": [], "inBin": false, "links": [], "notes": "", "place": "Room 2", "rrule": null, "start": "2026-11-27T11:00:00", "state": "live", "title": "Tide-table quiz", "allDay": false, "capLink": null, "contact": "", "removed": [], "calendar": "01a21fbb-3369-76e0-9f99-5401c974edad", "category": "01a21fbb-355b-7719-90de-dcda80b561d3", "inBreaks": "ignore", "showFrom": null, "showUntil": null, "capMembers": null, "exceptions": [], "placements": [], "capEveryone": null, "description": "", "descriptionText": ""}', '01a21fbb-36a6-7c86-a561-088309351587');
INSERT INTO public.revision VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-36aa-729c-b2fe-e9293d201e25', 1, 'made', '01a21fbb-31a3-7bf0-826c-eaab066583b8', '2026-10-24 12:00:00.722+00', '{"end": "2026-12-01T15:00:00", "tags": [], "zone": "America/Halifax", "cycle": null, "extra": [], "files": [], "inBin": false, "links": [], "notes": "", "place": "Grey Point", "rrule": null, "start": "2026-12-01T09:00:00", "state": "live", "title": "Survey walk", "allDay": false, "capLink": null, "contact": "", "removed": [], "calendar": "01a21fbb-34ae-71b6-9803-a8912fd2a841", "category": null, "inBreaks": "ignore", "showFrom": null, "showUntil": null, "capMembers": null, "exceptions": [], "placements": [], "capEveryone": null, "description": "", "descriptionText": ""}', '01a21fbb-36aa-7b51-8699-9794e9797cf6');
INSERT INTO public.revision VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-36af-7284-842b-b669312047d5', 1, 'made', '01a21fbb-311c-7114-a480-b3af59fe0dab', '2026-10-24 12:00:00.722+00', '{"end": "2026-11-27T15:00:00", "tags": [], "zone": "America/Halifax", "cycle": null, "extra": [], "files": [], "inBin": false, "links": [], "notes": "", "place": "Hall", "rrule": null, "start": "2026-11-27T13:30:00", "state": "live", "title": "Radio exam", "allDay": false, "capLink": null, "contact": "", "removed": [], "calendar": "01a21fbb-34b9-7b12-a4e7-cd6ae33a8336", "category": "01a21fbb-355b-7719-90de-dcda80b561d3", "inBreaks": "ignore", "showFrom": null, "showUntil": null, "capMembers": null, "exceptions": [], "placements": [], "capEveryone": null, "description": "", "descriptionText": ""}', '01a21fbb-36af-7eec-b50e-a2fc4614d14d');
INSERT INTO public.revision VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-36b3-711c-a712-09bb4f54f3ae', 1, 'made', '01a21fbb-311c-7114-a480-b3af59fe0dab', '2026-10-24 12:00:00.722+00', '{"end": "2026-12-12T00:00:00", "tags": [], "zone": "America/Halifax", "cycle": null, "extra": [], "files": [], "inBin": false, "links": [], "notes": "", "place": "", "rrule": null, "start": "2026-12-07T00:00:00", "state": "live", "title": "Exam week", "allDay": true, "capLink": null, "contact": "", "removed": [], "calendar": "01a21fbb-34b9-7b12-a4e7-cd6ae33a8336", "category": "01a21fbb-355b-7719-90de-dcda80b561d3", "inBreaks": "ignore", "showFrom": null, "showUntil": null, "capMembers": null, "exceptions": [], "placements": [], "capEveryone": null, "description": "", "descriptionText": ""}', '01a21fbb-36b3-7b5b-b5ba-a7be8f03bdfe');
INSERT INTO public.revision VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-36b7-7e20-81af-33cad3d6f066', 1, 'made', '01a21fbb-311c-7114-a480-b3af59fe0dab', '2026-10-24 12:00:00.722+00', '{"end": "2027-03-27T00:00:00", "tags": [], "zone": "America/Halifax", "cycle": null, "extra": [], "files": [], "inBin": false, "links": [], "notes": "", "place": "", "rrule": null, "start": "2027-03-22T00:00:00", "state": "live", "title": "Exam week", "allDay": true, "capLink": null, "contact": "", "removed": [], "calendar": "01a21fbb-34b9-7b12-a4e7-cd6ae33a8336", "category": "01a21fbb-355b-7719-90de-dcda80b561d3", "inBreaks": "ignore", "showFrom": null, "showUntil": null, "capMembers": null, "exceptions": [], "placements": [], "capEveryone": null, "description": "", "descriptionText": ""}', '01a21fbb-36b7-76fd-baae-432cbe0e6553');
INSERT INTO public.revision VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-36bd-7c88-a7a5-18d7bb0e6024', 1, 'made', '01a21fbb-311c-7114-a480-b3af59fe0dab', '2026-10-24 12:00:00.722+00', '{"end": "2026-09-07T19:00:00", "tags": [], "zone": "America/Halifax", "cycle": null, "extra": [], "files": [], "inBin": false, "links": [], "notes": "", "place": "Boathouse", "rrule": "FREQ=WEEKLY;UNTIL=20270402T203000Z;BYDAY=MO,WE", "start": "2026-09-07T17:30:00", "state": "live", "title": "Ergometers", "allDay": false, "capLink": null, "contact": "", "removed": [], "calendar": "01a21fbb-34c5-76c8-9d08-77d5fcfd6f48", "category": "01a21fbb-3565-7615-8e90-69b4900aedec", "inBreaks": "ignore", "showFrom": null, "showUntil": null, "capMembers": null, "exceptions": [], "placements": [], "capEveryone": null, "description": "", "descriptionText": ""}', '01a21fbb-36bd-792d-848a-97130c5fc546');
INSERT INTO public.revision VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-36c3-7754-9adb-6b7efd4470d3', 1, 'made', '01a21fbb-311c-7114-a480-b3af59fe0dab', '2026-10-24 12:00:00.722+00', '{"end": "2026-11-28T12:30:00", "tags": [], "zone": "America/Halifax", "cycle": null, "extra": [], "files": [], "inBin": false, "links": [], "notes": "", "place": "East pier", "rrule": null, "start": "2026-11-28T08:00:00", "state": "live", "title": "Head of the Narrows", "allDay": false, "capLink": null, "contact": "", "removed": [], "calendar": "01a21fbb-34c5-76c8-9d08-77d5fcfd6f48", "category": "01a21fbb-3567-7d3c-a6b9-d859ccc43ea4", "inBreaks": "ignore", "showFrom": null, "showUntil": null, "capMembers": null, "exceptions": [], "placements": [], "capEveryone": null, "description": "", "descriptionText": ""}', '01a21fbb-36c3-7021-bd0b-3873b9df2c35');
INSERT INTO public.revision VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-36c7-7d11-877c-5ef07d2e5bf3', 1, 'made', '01a21fbb-311c-7114-a480-b3af59fe0dab', '2026-10-24 12:00:00.722+00', '{"end": "2026-12-14T00:00:00", "tags": [], "zone": "America/Halifax", "cycle": null, "extra": [], "files": [], "inBin": false, "links": [], "notes": "", "place": "Outer harbour", "rrule": null, "start": "2026-12-11T00:00:00", "state": "live", "title": "Winter regatta", "allDay": true, "capLink": null, "contact": "", "removed": [], "calendar": "01a21fbb-34c5-76c8-9d08-77d5fcfd6f48", "category": "01a21fbb-3567-7d3c-a6b9-d859ccc43ea4", "inBreaks": "ignore", "showFrom": null, "showUntil": null, "capMembers": null, "exceptions": [], "placements": [], "capEveryone": null, "description": "", "descriptionText": ""}', '01a21fbb-36c7-7c6f-b635-4d2864a6003c');
INSERT INTO public.revision VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-36cb-7fa7-ad67-5e89866adc59', 1, 'made', '01a21fbb-311c-7114-a480-b3af59fe0dab', '2026-10-24 12:00:00.722+00', '{"end": "2027-03-29T00:00:00", "tags": [], "zone": "America/Halifax", "cycle": null, "extra": [], "files": [], "inBin": false, "links": [], "notes": "", "place": "Outer harbour", "rrule": null, "start": "2027-03-26T00:00:00", "state": "live", "title": "Spring regatta", "allDay": true, "capLink": null, "contact": "", "removed": [], "calendar": "01a21fbb-34c5-76c8-9d08-77d5fcfd6f48", "category": "01a21fbb-3567-7d3c-a6b9-d859ccc43ea4", "inBreaks": "ignore", "showFrom": null, "showUntil": null, "capMembers": null, "exceptions": [], "placements": [], "capEveryone": null, "description": "", "descriptionText": ""}', '01a21fbb-36cb-7715-b71d-8e9fccff8beb');
INSERT INTO public.revision VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-36d1-79db-8124-9e5cca2a1481', 1, 'made', '01a21fbb-311c-7114-a480-b3af59fe0dab', '2026-10-24 12:00:00.722+00', '{"end": "2026-11-26T18:45:00", "tags": [], "zone": "Europe/Oslo", "cycle": null, "extra": [], "files": [], "inBin": false, "links": [], "notes": "", "place": "by video", "rrule": null, "start": "2026-11-26T18:00:00", "state": "live", "title": "Call with the Oslo rowers", "allDay": false, "capLink": null, "contact": "", "removed": [], "calendar": "01a21fbb-34c5-76c8-9d08-77d5fcfd6f48", "category": null, "inBreaks": "ignore", "showFrom": null, "showUntil": null, "capMembers": null, "exceptions": [], "placements": [], "capEveryone": null, "description": "", "descriptionText": ""}', '01a21fbb-36d1-7abd-b514-0238d3e03253');
INSERT INTO public.revision VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-36d6-7347-adcd-e204861179ff', 1, 'made', '01a21fbb-311c-7114-a480-b3af59fe0dab', '2026-10-24 12:00:00.722+00', '{"end": "2026-11-25T20:30:00", "tags": [], "zone": "America/Halifax", "cycle": null, "extra": [], "files": [], "inBin": false, "links": [], "notes": "", "place": "Hall", "rrule": null, "start": "2026-11-25T18:30:00", "state": "live", "title": "Open harbour evening", "allDay": false, "capLink": null, "contact": "", "removed": [], "calendar": "01a21fbb-34ce-7a40-a41e-e48abf73d9a5", "category": "01a21fbb-3569-78a3-871a-20d4237c376c", "inBreaks": "ignore", "showFrom": null, "showUntil": null, "capMembers": null, "exceptions": [], "placements": [], "capEveryone": null, "description": "<p>Boats, knots and chowder for families and friends. <a href=\"https://pinewick.example/open-harbour\" target=\"_blank\" rel=\"noopener noreferrer\">Sign up</a> so that we know how much to cook.</p>", "descriptionText": "Boats, knots and chowder for families and friends. Sign up (https://pinewick.example/open-harbour) so that we know how much to cook."}', '01a21fbb-36d6-79a3-8ec7-44181fc2f7b2');
INSERT INTO public.revision VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-36db-7649-b514-8d1add44ec43', 1, 'made', '01a21fbb-311c-7114-a480-b3af59fe0dab', '2026-10-24 12:00:00.722+00', '{"end": "2026-11-27T00:00:00", "tags": [], "zone": "America/Halifax", "cycle": null, "extra": [], "files": [], "inBin": false, "links": [], "notes": "", "place": "whole site", "rrule": null, "start": "2026-11-26T00:00:00", "state": "live", "title": "Safety drill", "allDay": true, "capLink": null, "contact": "", "removed": [], "calendar": "01a21fbb-34ce-7a40-a41e-e48abf73d9a5", "category": null, "inBreaks": "ignore", "showFrom": null, "showUntil": null, "capMembers": null, "exceptions": [], "placements": [], "capEveryone": null, "description": "", "descriptionText": ""}', '01a21fbb-36db-7566-9f8f-32d3a32db827');
INSERT INTO public.revision VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-36e6-7221-88d5-7cc696c88e3b', 1, 'made', '01a21fbb-311c-7114-a480-b3af59fe0dab', '2026-10-24 12:00:00.722+00', '{"end": "2026-10-05T10:20:00", "tags": [], "zone": "America/Halifax", "cycle": null, "extra": [], "files": [], "inBin": false, "links": [], "notes": "", "place": "whole site", "rrule": "FREQ=MONTHLY;UNTIL=20270402T130000Z;BYDAY=1MO", "start": "2026-10-05T10:00:00", "state": "live", "title": "First-Monday drill", "allDay": false, "capLink": null, "contact": "", "removed": [], "calendar": "01a21fbb-34ce-7a40-a41e-e48abf73d9a5", "category": null, "inBreaks": "skip", "showFrom": null, "showUntil": null, "capMembers": null, "exceptions": [], "placements": [], "capEveryone": null, "description": "", "descriptionText": ""}', '01a21fbb-36e6-72c0-87f2-b9a3cb4f751b');
INSERT INTO public.revision VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-36eb-7a1a-89a5-3ee86c3d1b1c', 1, 'made', '01a21fbb-311c-7114-a480-b3af59fe0dab', '2026-10-24 12:00:00.722+00', '{"end": "2026-12-16T20:00:00", "tags": [], "zone": "America/Halifax", "cycle": null, "extra": [], "files": [], "inBin": false, "links": [], "notes": "", "place": "Hall", "rrule": null, "start": "2026-12-16T17:00:00", "state": "live", "title": "Lantern supper", "allDay": false, "capLink": null, "contact": "", "removed": [], "calendar": "01a21fbb-34ce-7a40-a41e-e48abf73d9a5", "category": "01a21fbb-3569-78a3-871a-20d4237c376c", "inBreaks": "ignore", "showFrom": null, "showUntil": null, "capMembers": null, "exceptions": [], "placements": [], "capEveryone": null, "description": "", "descriptionText": ""}', '01a21fbb-36eb-7cc3-b28d-8485ebd51a57');
INSERT INTO public.revision VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-36f0-7f53-95bd-df113adaf891', 1, 'made', '01a21fbb-311c-7114-a480-b3af59fe0dab', '2026-10-24 12:00:00.722+00', '{"end": "2026-12-05T12:00:00", "tags": [], "zone": "America/Halifax", "cycle": null, "extra": [], "files": [], "inBin": false, "links": [], "notes": "", "place": "Hall", "rrule": null, "start": "2026-12-05T10:00:00", "state": "live", "title": "Families’ morning", "allDay": false, "capLink": null, "contact": "", "removed": [], "calendar": "01a21fbb-34ce-7a40-a41e-e48abf73d9a5", "category": "01a21fbb-3569-78a3-871a-20d4237c376c", "inBreaks": "ignore", "showFrom": null, "showUntil": null, "capMembers": null, "exceptions": [], "placements": [], "capEveryone": null, "description": "", "descriptionText": ""}', '01a21fbb-36f0-7f96-bf45-20caa58580d6');
INSERT INTO public.revision VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-36f4-7514-830c-c942c6153fb0', 1, 'made', '01a21fbb-311c-7114-a480-b3af59fe0dab', '2026-10-24 12:00:00.722+00', '{"end": "2026-11-10T00:00:00", "tags": [], "zone": "America/Halifax", "cycle": null, "extra": [], "files": [], "inBin": false, "links": [], "notes": "", "place": "Outer harbour", "rrule": null, "start": "2026-11-07T00:00:00", "state": "live", "title": "Autumn regatta", "allDay": true, "capLink": null, "contact": "", "removed": [], "calendar": "01a21fbb-34ce-7a40-a41e-e48abf73d9a5", "category": "01a21fbb-3567-7d3c-a6b9-d859ccc43ea4", "inBreaks": "ignore", "showFrom": null, "showUntil": null, "capMembers": null, "exceptions": [], "placements": [], "capEveryone": null, "description": "", "descriptionText": ""}', '01a21fbb-36f4-7f21-b1a3-b97d668d14f2');
INSERT INTO public.revision VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-36f9-75db-b2b3-2a74b2ad6813', 1, 'made', '01a21fbb-311c-7114-a480-b3af59fe0dab', '2026-10-24 12:00:00.722+00', '{"end": "2026-09-11T08:50:00", "tags": [], "zone": "America/Halifax", "cycle": null, "extra": [], "files": [], "inBin": false, "links": [], "notes": "", "place": "Hall", "rrule": "FREQ=WEEKLY;UNTIL=20270402T113000Z;BYDAY=FR", "start": "2026-09-11T08:30:00", "state": "live", "title": "Assembly", "allDay": false, "capLink": null, "contact": "", "removed": [], "calendar": "01a21fbb-34ce-7a40-a41e-e48abf73d9a5", "category": null, "inBreaks": "skip", "showFrom": null, "showUntil": null, "capMembers": null, "exceptions": [], "placements": [], "capEveryone": null, "description": "", "descriptionText": ""}', '01a21fbb-36f9-740f-a135-e81676d6852a');
INSERT INTO public.revision VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-36fe-7387-ab8f-04df1a6c7191', 1, 'made', '01a21fbb-31a3-7bf0-826c-eaab066583b8', '2026-10-24 12:00:00.722+00', '{"end": "2026-09-08T15:30:00", "tags": [], "zone": "America/Halifax", "cycle": null, "extra": [], "files": [], "inBin": false, "links": [], "notes": "", "place": "Slipway", "rrule": "FREQ=WEEKLY;UNTIL=20270402T170000Z;BYDAY=TU", "start": "2026-09-08T14:00:00", "state": "live", "title": "Slipway taken", "allDay": false, "capLink": null, "contact": "", "removed": [], "calendar": "01a21fbb-34d6-7aeb-b478-7353fa70392c", "category": null, "inBreaks": "skip", "showFrom": null, "showUntil": null, "capMembers": null, "exceptions": [], "placements": [], "capEveryone": null, "description": "", "descriptionText": ""}', '01a21fbb-36fe-7268-8a38-9093801cd8e7');
INSERT INTO public.revision VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-3702-7e5f-9619-aeb0179b7be1', 1, 'made', '01a21fbb-31a3-7bf0-826c-eaab066583b8', '2026-10-24 12:00:00.722+00', '{"end": "2026-11-25T21:00:00", "tags": [], "zone": "America/Halifax", "cycle": null, "extra": [], "files": [], "inBin": false, "links": [], "notes": "", "place": "Hall", "rrule": null, "start": "2026-11-25T18:00:00", "state": "live", "title": "Hall taken", "allDay": false, "capLink": null, "contact": "", "removed": [], "calendar": "01a21fbb-34d6-7aeb-b478-7353fa70392c", "category": null, "inBreaks": "ignore", "showFrom": null, "showUntil": null, "capMembers": null, "exceptions": [], "placements": [], "capEveryone": null, "description": "", "descriptionText": ""}', '01a21fbb-3702-75fd-881c-1cb38293b3a5');
INSERT INTO public.revision VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-3706-7f59-90f6-0e8f016c336b', 1, 'made', '01a21fbb-31a3-7bf0-826c-eaab066583b8', '2026-10-24 12:00:00.722+00', '{"end": "2026-11-27T15:30:00", "tags": [], "zone": "America/Halifax", "cycle": null, "extra": [], "files": [], "inBin": false, "links": [], "notes": "", "place": "Hall", "rrule": null, "start": "2026-11-27T13:00:00", "state": "live", "title": "Hall taken", "allDay": false, "capLink": null, "contact": "", "removed": [], "calendar": "01a21fbb-34d6-7aeb-b478-7353fa70392c", "category": null, "inBreaks": "ignore", "showFrom": null, "showUntil": null, "capMembers": null, "exceptions": [], "placements": [], "capEveryone": null, "description": "", "descriptionText": ""}', '01a21fbb-3706-7888-986a-d82d86addda4');
INSERT INTO public.revision VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-370a-71f2-a0ce-4561082cd0bb', 1, 'made', '01a21fbb-31a3-7bf0-826c-eaab066583b8', '2026-10-24 12:00:00.722+00', '{"end": "2026-11-29T06:00:00", "tags": [], "zone": "America/Halifax", "cycle": null, "extra": [], "files": [], "inBin": false, "links": [], "notes": "", "place": "East pier", "rrule": null, "start": "2026-11-28T22:00:00", "state": "live", "title": "Night watch on the pier", "allDay": false, "capLink": null, "contact": "", "removed": [], "calendar": "01a21fbb-34d6-7aeb-b478-7353fa70392c", "category": null, "inBreaks": "ignore", "showFrom": null, "showUntil": null, "capMembers": null, "exceptions": [], "placements": [], "capEveryone": null, "description": "", "descriptionText": ""}', '01a21fbb-370a-789c-b57a-9e68d374fb17');
INSERT INTO public.revision VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-370f-7fd3-b8af-f6e452728510', 1, 'made', '01a21fbb-311c-7114-a480-b3af59fe0dab', '2026-10-24 12:00:00.722+00', '{"end": "2026-09-07T08:45:00", "tags": [], "zone": "America/Halifax", "cycle": null, "extra": [], "files": [], "inBin": false, "links": [], "notes": "", "place": "Wardroom", "rrule": "FREQ=WEEKLY;UNTIL=20270402T111500Z;BYDAY=MO", "start": "2026-09-07T08:15:00", "state": "live", "title": "Briefing", "allDay": false, "capLink": null, "contact": "", "removed": [], "calendar": "01a21fbb-34dd-7c61-8f66-2860f21d7767", "category": null, "inBreaks": "skip", "showFrom": null, "showUntil": null, "capMembers": null, "exceptions": [], "placements": [], "capEveryone": null, "description": "", "descriptionText": ""}', '01a21fbb-370f-7a0a-b6d3-50404df72fb6');
INSERT INTO public.revision VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-3713-71be-b3d0-4044e052a203', 1, 'made', '01a21fbb-311c-7114-a480-b3af59fe0dab', '2026-10-24 12:00:00.722+00', '{"end": "2026-11-26T17:00:00", "tags": [], "zone": "America/Halifax", "cycle": null, "extra": [], "files": [], "inBin": false, "links": [], "notes": "", "place": "Room 2", "rrule": null, "start": "2026-11-26T15:45:00", "state": "live", "title": "Moderation", "allDay": false, "capLink": null, "contact": "", "removed": [], "calendar": "01a21fbb-34dd-7c61-8f66-2860f21d7767", "category": null, "inBreaks": "ignore", "showFrom": null, "showUntil": null, "capMembers": null, "exceptions": [], "placements": [], "capEveryone": null, "description": "", "descriptionText": ""}', '01a21fbb-3713-79cf-892f-25a7ab17dc2b');
INSERT INTO public.revision VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-3719-79ac-83a1-c7eb437502f0', 1, 'made', '01a21fbb-311c-7114-a480-b3af59fe0dab', '2026-10-24 12:00:00.722+00', '{"end": "2026-09-30T16:30:00", "tags": [], "zone": "America/Halifax", "cycle": null, "extra": [], "files": [], "inBin": false, "links": [], "notes": "", "place": "Wardroom", "rrule": "FREQ=MONTHLY;UNTIL=20270402T190000Z;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-1", "start": "2026-09-30T16:00:00", "state": "live", "title": "Log book check", "allDay": false, "capLink": null, "contact": "", "removed": [], "calendar": "01a21fbb-34dd-7c61-8f66-2860f21d7767", "category": null, "inBreaks": "move", "showFrom": null, "showUntil": null, "capMembers": null, "exceptions": [], "placements": [], "capEveryone": null, "description": "", "descriptionText": ""}', '01a21fbb-3719-76fe-8896-c4529761cb97');
INSERT INTO public.revision VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-3670-7627-95f3-a26b0a10cc01', 2, 'changed', '01a21fbb-31a3-7bf0-826c-eaab066583b8', '2026-11-23 08:00:00.722+00', '{"end": "2026-09-09T15:30:00", "tags": ["practical"], "zone": "America/Halifax", "cycle": null, "extra": [], "files": [], "inBin": false, "links": [], "notes": "", "place": "Slipway", "rrule": "FREQ=WEEKLY;UNTIL=20270402T170000Z;BYDAY=WE", "start": "2026-09-09T14:00:00", "state": "live", "title": "Boat lab", "allDay": false, "capLink": null, "contact": "", "removed": [], "calendar": "01a21fbb-34ae-71b6-9803-a8912fd2a841", "category": null, "inBreaks": "skip", "showFrom": null, "showUntil": null, "capMembers": null, "exceptions": [{"end": "2026-11-26T17:00:00", "place": null, "start": "2026-11-26T15:30:00", "title": null, "description": null, "isCancelled": false, "recurrenceId": "2026-11-25T14:00:00", "descriptionText": null}], "placements": [], "capEveryone": null, "description": "", "descriptionText": ""}', '01a21fbb-3772-73bd-b6c3-229793864086');
INSERT INTO public.revision VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-35b5-74d5-b34e-ae8dce510bde', 2, 'cancelled', '01a21fbb-31a3-7bf0-826c-eaab066583b8', '2026-11-20 12:00:00.722+00', '{"end": "2026-09-07T10:30:00", "tags": [], "zone": "America/Halifax", "cycle": null, "extra": [], "files": [], "inBin": false, "links": [], "notes": "", "place": "Loft", "rrule": "FREQ=WEEKLY;UNTIL=20270402T120000Z;BYDAY=MO", "start": "2026-09-07T09:00:00", "state": "live", "title": "Knots and lines", "allDay": false, "capLink": null, "contact": "", "removed": [], "calendar": "01a21fbb-3369-76e0-9f99-5401c974edad", "category": null, "inBreaks": "skip", "showFrom": null, "showUntil": null, "capMembers": null, "exceptions": [{"end": null, "place": null, "start": null, "title": null, "description": null, "isCancelled": true, "recurrenceId": "2026-11-23T09:00:00", "descriptionText": null}], "placements": [], "capEveryone": null, "description": "", "descriptionText": ""}', '01a21fbb-378f-76d6-ab50-50884477eee8');
INSERT INTO public.revision VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-36bd-7c88-a7a5-18d7bb0e6024', 2, 'changed', '01a21fbb-311c-7114-a480-b3af59fe0dab', '2026-11-22 10:00:00.722+00', '{"end": "2026-09-07T19:00:00", "tags": [], "zone": "America/Halifax", "cycle": null, "extra": [], "files": [], "inBin": false, "links": [], "notes": "", "place": "Boathouse", "rrule": "FREQ=WEEKLY;UNTIL=20270402T203000Z;BYDAY=MO,WE", "start": "2026-09-07T17:30:00", "state": "live", "title": "Ergometers", "allDay": false, "capLink": null, "contact": "", "removed": [], "calendar": "01a21fbb-34c5-76c8-9d08-77d5fcfd6f48", "category": "01a21fbb-3565-7615-8e90-69b4900aedec", "inBreaks": "ignore", "showFrom": null, "showUntil": null, "capMembers": null, "exceptions": [{"end": null, "place": "Hall", "start": null, "title": null, "description": null, "isCancelled": false, "recurrenceId": "2026-11-30T17:30:00", "descriptionText": null}], "placements": [], "capEveryone": null, "description": "", "descriptionText": ""}', '01a21fbb-3799-7aed-87fa-7a59244eac8f');
INSERT INTO public.revision VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-36d6-7347-adcd-e204861179ff', 2, 'changed', '01a21fbb-311c-7114-a480-b3af59fe0dab', '2026-11-23 12:00:00.722+00', '{"end": "2026-11-25T20:30:00", "tags": [], "zone": "America/Halifax", "cycle": null, "extra": [], "files": [{"id": "01a21fbb-389f-7c82-904e-3ff80c6bc996", "name": "Boats in the evening.png", "size": 40414, "type": "image/png", "isPicture": true}, {"id": "01a21fbb-38a9-7279-bdf9-4159d65e07f3", "name": "Open harbour poster.pdf", "size": 645, "type": "application/pdf", "isPicture": false}], "inBin": false, "links": [{"url": "https://pinewick.example/open-harbour/programme", "label": "Programme"}], "notes": "Chowder for 140; ask the boathouse for the big pot.", "place": "Hall", "rrule": null, "start": "2026-11-25T18:30:00", "state": "live", "title": "Open harbour evening", "allDay": false, "capLink": null, "contact": "Harbour office, office@pinewick.example", "removed": [], "calendar": "01a21fbb-34ce-7a40-a41e-e48abf73d9a5", "category": "01a21fbb-3569-78a3-871a-20d4237c376c", "inBreaks": "ignore", "showFrom": null, "showUntil": null, "capMembers": null, "exceptions": [], "placements": ["01a21fbb-3369-76e0-9f99-5401c974edad", "01a21fbb-34ae-71b6-9803-a8912fd2a841", "01a21fbb-34b9-7b12-a4e7-cd6ae33a8336"], "capEveryone": null, "description": "<p>Boats, knots and chowder for families and friends. <a href=\"https://pinewick.example/open-harbour\" target=\"_blank\" rel=\"noopener noreferrer\">Sign up</a> so that we know how much to cook.</p>", "descriptionText": "Boats, knots and chowder for families and friends. Sign up (https://pinewick.example/open-harbour) so that we know how much to cook."}', '01a21fbb-38aa-7c44-bf82-a48bd54898b1');
INSERT INTO public.revision VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-36db-7649-b514-8d1add44ec43', 2, 'changed', '01a21fbb-311c-7114-a480-b3af59fe0dab', '2026-11-23 12:00:00.722+00', '{"end": "2026-11-27T00:00:00", "tags": [], "zone": "America/Halifax", "cycle": null, "extra": [], "files": [], "inBin": false, "links": [], "notes": "", "place": "whole site", "rrule": null, "start": "2026-11-26T00:00:00", "state": "live", "title": "Safety drill", "allDay": true, "capLink": null, "contact": "", "removed": [], "calendar": "01a21fbb-34ce-7a40-a41e-e48abf73d9a5", "category": null, "inBreaks": "ignore", "showFrom": null, "showUntil": null, "capMembers": null, "exceptions": [], "placements": ["01a21fbb-3369-76e0-9f99-5401c974edad", "01a21fbb-34ae-71b6-9803-a8912fd2a841", "01a21fbb-34b9-7b12-a4e7-cd6ae33a8336"], "capEveryone": null, "description": "", "descriptionText": ""}', '01a21fbb-38b9-7780-bcc3-3aefe6aa9f1e');
INSERT INTO public.revision VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-36af-7284-842b-b669312047d5', 2, 'changed', '01a21fbb-311c-7114-a480-b3af59fe0dab', '2026-11-23 12:00:00.722+00', '{"end": "2026-11-27T15:00:00", "tags": [], "zone": "America/Halifax", "cycle": null, "extra": [], "files": [], "inBin": false, "links": [], "notes": "Two candidates repeat; tell nobody outside.", "place": "Hall", "rrule": null, "start": "2026-11-27T13:30:00", "state": "live", "title": "Radio exam", "allDay": false, "capLink": "times", "contact": "", "removed": [], "calendar": "01a21fbb-34b9-7b12-a4e7-cd6ae33a8336", "category": "01a21fbb-355b-7719-90de-dcda80b561d3", "inBreaks": "ignore", "showFrom": null, "showUntil": null, "capMembers": "headline", "exceptions": [], "placements": [], "capEveryone": "times", "description": "", "descriptionText": ""}', '01a21fbb-38c3-7059-bab5-3be97ce1c193');
INSERT INTO public.revision VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-36d1-79db-8124-9e5cca2a1481', 2, 'changed', '01a21fbb-311c-7114-a480-b3af59fe0dab', '2026-11-23 12:00:00.722+00', '{"end": "2026-11-26T18:45:00", "tags": [], "zone": "Europe/Oslo", "cycle": null, "extra": [], "files": [], "inBin": false, "links": [], "notes": "", "place": "by video", "rrule": null, "start": "2026-11-26T18:00:00", "state": "live", "title": "Call with the Oslo rowers", "allDay": false, "capLink": null, "contact": "", "removed": [], "calendar": "01a21fbb-34c5-76c8-9d08-77d5fcfd6f48", "category": null, "inBreaks": "ignore", "showFrom": null, "showUntil": null, "capMembers": null, "exceptions": [], "placements": [], "capEveryone": null, "description": "<p>Ask Cy for the address of the call: cy@pinewick.example or 902 555 0143.</p>", "descriptionText": "Ask Cy for the address of the call: cy@pinewick.example or 902 555 0143."}', '01a21fbb-38c9-7f42-bbfd-0d5a97401dd9');
INSERT INTO public.revision VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-36eb-7a1a-89a5-3ee86c3d1b1c', 2, 'changed', '01a21fbb-311c-7114-a480-b3af59fe0dab', '2026-11-23 12:00:00.722+00', '{"end": "2026-12-16T20:00:00", "tags": [], "zone": "America/Halifax", "cycle": null, "extra": [], "files": [], "inBin": false, "links": [], "notes": "Goes out when the menu is settled.", "place": "Hall", "rrule": null, "start": "2026-12-16T17:00:00", "state": "live", "title": "Lantern supper", "allDay": false, "capLink": null, "contact": "", "removed": [], "calendar": "01a21fbb-34ce-7a40-a41e-e48abf73d9a5", "category": "01a21fbb-3569-78a3-871a-20d4237c376c", "inBreaks": "ignore", "showFrom": "2026-11-30", "showUntil": null, "capMembers": null, "exceptions": [], "placements": [], "capEveryone": null, "description": "", "descriptionText": ""}', '01a21fbb-38d0-73d2-bab5-a5e534a9b8da');
INSERT INTO public.revision VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbb-38ec-794d-bb28-75c3e72f9b35', 1, 'made', '01a21fbb-321f-773f-a12f-65905bdac863', '2026-11-23 12:00:00.722+00', '{"end": "2026-12-05T12:30:00", "tags": [], "zone": "America/Halifax", "cycle": null, "extra": [], "files": [], "inBin": false, "links": [], "notes": "", "place": "Boathouse", "rrule": null, "start": "2026-12-05T08:00:00", "state": "waiting", "title": "Seat trials", "allDay": false, "capLink": null, "contact": "", "removed": [], "calendar": "01a21fbb-34c5-76c8-9d08-77d5fcfd6f48", "category": null, "inBreaks": "ignore", "showFrom": null, "showUntil": null, "capMembers": null, "exceptions": [], "placements": [], "capEveryone": null, "description": "<p>Weigh-in half an hour before.</p>", "descriptionText": "Weigh-in half an hour before."}', '01a21fbb-38ec-7b91-a576-c6de644244dc');
INSERT INTO public.revision VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbc-c182-799c-8aef-8b19b8527a8c', 1, 'made', '01a21fbb-311c-7114-a480-b3af59fe0dab', '2026-11-23 12:01:39+00', '{"end": "2026-11-24T15:30:00", "tags": ["outdoors", "practical"], "zone": "Europe/Oslo", "cycle": null, "extra": ["2027-03-01T14:00:00"], "files": [{"id": "01a21fbc-bfe2-75c8-955e-9d2c1f0d68fe", "name": "Plan & map.pdf", "size": 15, "type": "application/pdf", "isPicture": false}], "inBin": false, "links": [{"url": "https://pinewick.example/sign-up", "label": "Sign up"}], "notes": "Two\nlines for editors", "place": "Hall", "rrule": "FREQ=WEEKLY;COUNT=12;BYDAY=TU,TH", "start": "2026-11-24T14:00:00", "state": "live", "title": "All there is “to say” 🦑", "allDay": false, "capLink": "headline", "contact": "Office, 0902 555 010", "removed": ["2026-12-03T14:00:00"], "calendar": "01a21fbb-34ce-7a40-a41e-e48abf73d9a5", "category": "01a21fbb-355b-7719-90de-dcda80b561d3", "inBreaks": "skip", "showFrom": "2026-11-01", "showUntil": "2027-06-30", "capMembers": "complete", "exceptions": [], "placements": ["01a21fbb-3369-76e0-9f99-5401c974edad"], "capEveryone": "times", "description": "<p>Bring <strong>lamps</strong>, see <a href=\"https://pinewick.example/\" target=\"_blank\" rel=\"noopener noreferrer\">the list</a>.</p>", "descriptionText": "Bring lamps, see the list (https://pinewick.example/)."}', '01a21fbc-c182-7e70-8469-219e17a5ea1a');
INSERT INTO public.revision VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbc-c182-799c-8aef-8b19b8527a8c', 2, 'cancelled', '01a21fbb-311c-7114-a480-b3af59fe0dab', '2026-11-23 12:01:40+00', '{"end": "2026-11-24T15:30:00", "tags": ["outdoors", "practical"], "zone": "Europe/Oslo", "cycle": null, "extra": ["2027-03-01T14:00:00"], "files": [{"id": "01a21fbc-bfe2-75c8-955e-9d2c1f0d68fe", "name": "Plan & map.pdf", "size": 15, "type": "application/pdf", "isPicture": false}], "inBin": false, "links": [{"url": "https://pinewick.example/sign-up", "label": "Sign up"}], "notes": "Two\nlines for editors", "place": "Hall", "rrule": "FREQ=WEEKLY;COUNT=12;BYDAY=TU,TH", "start": "2026-11-24T14:00:00", "state": "live", "title": "All there is “to say” 🦑", "allDay": false, "capLink": "headline", "contact": "Office, 0902 555 010", "removed": ["2026-12-03T14:00:00"], "calendar": "01a21fbb-34ce-7a40-a41e-e48abf73d9a5", "category": "01a21fbb-355b-7719-90de-dcda80b561d3", "inBreaks": "skip", "showFrom": "2026-11-01", "showUntil": "2027-06-30", "capMembers": "complete", "exceptions": [{"end": null, "place": null, "start": null, "title": null, "description": null, "isCancelled": true, "recurrenceId": "2026-12-01T14:00:00", "descriptionText": null}], "placements": ["01a21fbb-3369-76e0-9f99-5401c974edad"], "capEveryone": "times", "description": "<p>Bring <strong>lamps</strong>, see <a href=\"https://pinewick.example/\" target=\"_blank\" rel=\"noopener noreferrer\">the list</a>.</p>", "descriptionText": "Bring lamps, see the list (https://pinewick.example/)."}', '01a21fbc-c2cd-7bf2-bc2c-90dbc0d26453');
INSERT INTO public.revision VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbc-c182-799c-8aef-8b19b8527a8c', 3, 'changed', '01a21fbb-311c-7114-a480-b3af59fe0dab', '2026-11-23 12:01:40+00', '{"end": "2026-11-24T15:30:00", "tags": ["outdoors", "practical"], "zone": "Europe/Oslo", "cycle": null, "extra": ["2027-03-01T14:00:00"], "files": [{"id": "01a21fbc-bfe2-75c8-955e-9d2c1f0d68fe", "name": "Plan & map.pdf", "size": 15, "type": "application/pdf", "isPicture": false}], "inBin": false, "links": [{"url": "https://pinewick.example/sign-up", "label": "Sign up"}], "notes": "Two\nlines for editors", "place": "Hall", "rrule": "FREQ=WEEKLY;COUNT=12;BYDAY=TU,TH", "start": "2026-11-24T14:00:00", "state": "live", "title": "All there is “to say” 🦑", "allDay": false, "capLink": "headline", "contact": "Office, 0902 555 010", "removed": ["2026-12-03T14:00:00"], "calendar": "01a21fbb-34ce-7a40-a41e-e48abf73d9a5", "category": "01a21fbb-355b-7719-90de-dcda80b561d3", "inBreaks": "skip", "showFrom": "2026-11-01", "showUntil": "2027-06-30", "capMembers": "complete", "exceptions": [{"end": null, "place": null, "start": null, "title": null, "description": null, "isCancelled": true, "recurrenceId": "2026-12-01T14:00:00", "descriptionText": null}, {"end": null, "place": "", "start": null, "title": "Own title", "description": "<p>Its own text</p>", "isCancelled": false, "recurrenceId": "2026-12-08T14:00:00", "descriptionText": "Its own text"}], "placements": ["01a21fbb-3369-76e0-9f99-5401c974edad"], "capEveryone": "times", "description": "<p>Bring <strong>lamps</strong>, see <a href=\"https://pinewick.example/\" target=\"_blank\" rel=\"noopener noreferrer\">the list</a>.</p>", "descriptionText": "Bring lamps, see the list (https://pinewick.example/)."}', '01a21fbc-c36a-7b62-ac80-a997f88a774e');
INSERT INTO public.revision VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbc-e086-7cf4-80fe-0a5e5bafcaa7', 1, 'made', '01a21fbb-311c-7114-a480-b3af59fe0dab', '2026-11-23 12:01:47+00', '{"end": "2026-11-24T15:30:00", "tags": ["outdoors", "practical"], "zone": "Europe/Oslo", "cycle": null, "extra": ["2027-03-01T14:00:00"], "files": [{"id": "01a21fbc-e07d-7de6-86fa-1cb654086d0f", "name": "Plan & map.pdf", "size": 15, "type": "application/pdf", "isPicture": false}], "inBin": false, "links": [{"url": "https://pinewick.example/sign-up", "label": "Sign up"}], "notes": "Two\nlines for editors", "place": "Hall", "rrule": "FREQ=WEEKLY;COUNT=12;BYDAY=TU,TH", "start": "2026-11-24T14:00:00", "state": "live", "title": "All there is “to say” 🦑", "allDay": false, "capLink": "headline", "contact": "Office, 0902 555 010", "removed": ["2026-12-03T14:00:00"], "calendar": "01a21fbb-34ce-7a40-a41e-e48abf73d9a5", "category": "01a21fbb-355b-7719-90de-dcda80b561d3", "inBreaks": "skip", "showFrom": "2026-11-01", "showUntil": "2027-06-30", "capMembers": "complete", "exceptions": [], "placements": ["01a21fbb-3369-76e0-9f99-5401c974edad"], "capEveryone": "times", "description": "<p>Bring <strong>lamps</strong>, see <a href=\"https://pinewick.example/\" target=\"_blank\" rel=\"noopener noreferrer\">the list</a>.</p>", "descriptionText": "Bring lamps, see the list (https://pinewick.example/)."}', '01a21fbc-e086-7fdb-be81-5998226c173c');
INSERT INTO public.revision VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbc-e086-7cf4-80fe-0a5e5bafcaa7', 2, 'cancelled', '01a21fbb-311c-7114-a480-b3af59fe0dab', '2026-11-23 12:01:47+00', '{"end": "2026-11-24T15:30:00", "tags": ["outdoors", "practical"], "zone": "Europe/Oslo", "cycle": null, "extra": ["2027-03-01T14:00:00"], "files": [{"id": "01a21fbc-e07d-7de6-86fa-1cb654086d0f", "name": "Plan & map.pdf", "size": 15, "type": "application/pdf", "isPicture": false}], "inBin": false, "links": [{"url": "https://pinewick.example/sign-up", "label": "Sign up"}], "notes": "Two\nlines for editors", "place": "Hall", "rrule": "FREQ=WEEKLY;COUNT=12;BYDAY=TU,TH", "start": "2026-11-24T14:00:00", "state": "live", "title": "All there is “to say” 🦑", "allDay": false, "capLink": "headline", "contact": "Office, 0902 555 010", "removed": ["2026-12-03T14:00:00"], "calendar": "01a21fbb-34ce-7a40-a41e-e48abf73d9a5", "category": "01a21fbb-355b-7719-90de-dcda80b561d3", "inBreaks": "skip", "showFrom": "2026-11-01", "showUntil": "2027-06-30", "capMembers": "complete", "exceptions": [{"end": null, "place": null, "start": null, "title": null, "description": null, "isCancelled": true, "recurrenceId": "2026-12-01T14:00:00", "descriptionText": null}], "placements": ["01a21fbb-3369-76e0-9f99-5401c974edad"], "capEveryone": "times", "description": "<p>Bring <strong>lamps</strong>, see <a href=\"https://pinewick.example/\" target=\"_blank\" rel=\"noopener noreferrer\">the list</a>.</p>", "descriptionText": "Bring lamps, see the list (https://pinewick.example/)."}', '01a21fbc-e0b0-79b1-9658-9b369f46fdef');
INSERT INTO public.revision VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbc-e086-7cf4-80fe-0a5e5bafcaa7', 3, 'changed', '01a21fbb-311c-7114-a480-b3af59fe0dab', '2026-11-23 12:01:48+00', '{"end": "2026-11-24T15:30:00", "tags": ["outdoors", "practical"], "zone": "Europe/Oslo", "cycle": null, "extra": ["2027-03-01T14:00:00"], "files": [{"id": "01a21fbc-e07d-7de6-86fa-1cb654086d0f", "name": "Plan & map.pdf", "size": 15, "type": "application/pdf", "isPicture": false}], "inBin": false, "links": [{"url": "https://pinewick.example/sign-up", "label": "Sign up"}], "notes": "Two\nlines for editors", "place": "Hall", "rrule": "FREQ=WEEKLY;COUNT=12;BYDAY=TU,TH", "start": "2026-11-24T14:00:00", "state": "live", "title": "All there is “to say” 🦑", "allDay": false, "capLink": "headline", "contact": "Office, 0902 555 010", "removed": ["2026-12-03T14:00:00"], "calendar": "01a21fbb-34ce-7a40-a41e-e48abf73d9a5", "category": "01a21fbb-355b-7719-90de-dcda80b561d3", "inBreaks": "skip", "showFrom": "2026-11-01", "showUntil": "2027-06-30", "capMembers": "complete", "exceptions": [{"end": null, "place": null, "start": null, "title": null, "description": null, "isCancelled": true, "recurrenceId": "2026-12-01T14:00:00", "descriptionText": null}, {"end": null, "place": "", "start": null, "title": "Own title", "description": "<p>Its own text</p>", "isCancelled": false, "recurrenceId": "2026-12-08T14:00:00", "descriptionText": "Its own text"}], "placements": ["01a21fbb-3369-76e0-9f99-5401c974edad"], "capEveryone": "times", "description": "<p>Bring <strong>lamps</strong>, see <a href=\"https://pinewick.example/\" target=\"_blank\" rel=\"noopener noreferrer\">the list</a>.</p>", "descriptionText": "Bring lamps, see the list (https://pinewick.example/)."}', '01a21fbc-e4f4-7ac5-ba9b-33e42e12eb99');
INSERT INTO public.revision VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbc-e086-7cf4-80fe-0a5e5bafcaa7', 4, 'changed', '01a21fbb-311c-7114-a480-b3af59fe0dab', '2026-11-23 12:01:48+00', '{"end": "2026-11-24T15:30:00", "tags": ["outdoors", "practical"], "zone": "Europe/Oslo", "cycle": null, "extra": ["2027-03-01T14:00:00"], "files": [{"id": "01a21fbc-e07d-7de6-86fa-1cb654086d0f", "name": "Plan & map.pdf", "size": 15, "type": "application/pdf", "isPicture": false}], "inBin": false, "links": [{"url": "https://pinewick.example/sign-up", "label": "Sign up"}], "notes": "Two\nlines for editors", "place": "Hall", "rrule": "FREQ=WEEKLY;COUNT=12;BYDAY=TU,TH", "start": "2026-11-24T14:00:00", "state": "live", "title": "All there is “to say” 🦑", "allDay": false, "capLink": "headline", "contact": "Office, 0902 555 010", "removed": ["2026-12-03T14:00:00"], "calendar": "01a21fbb-34ce-7a40-a41e-e48abf73d9a5", "category": "01a21fbb-355b-7719-90de-dcda80b561d3", "inBreaks": "skip", "showFrom": "2026-11-01", "showUntil": "2027-06-30", "capMembers": "complete", "exceptions": [{"end": null, "place": null, "start": null, "title": null, "description": null, "isCancelled": true, "recurrenceId": "2026-12-01T14:00:00", "descriptionText": null}, {"end": null, "place": "", "start": null, "title": "Own title", "description": "<p>Its own text</p>", "isCancelled": false, "recurrenceId": "2026-12-08T14:00:00", "descriptionText": "Its own text"}, {"end": "2026-12-11T17:00:00", "place": null, "start": "2026-12-11T16:00:00", "title": null, "description": null, "isCancelled": false, "recurrenceId": "2026-12-10T14:00:00", "descriptionText": null}], "placements": ["01a21fbb-3369-76e0-9f99-5401c974edad"], "capEveryone": "times", "description": "<p>Bring <strong>lamps</strong>, see <a href=\"https://pinewick.example/\" target=\"_blank\" rel=\"noopener noreferrer\">the list</a>.</p>", "descriptionText": "Bring lamps, see the list (https://pinewick.example/)."}', '01a21fbc-e523-7d1b-b629-16c6b370799d');
INSERT INTO public.revision VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbc-e086-7cf4-80fe-0a5e5bafcaa7', 5, 'changed', '01a21fbb-311c-7114-a480-b3af59fe0dab', '2026-11-23 12:01:49+00', '{"end": "2026-11-24T15:30:00", "tags": ["outdoors", "practical"], "zone": "Europe/Oslo", "cycle": null, "extra": [], "files": [{"id": "01a21fbc-e07d-7de6-86fa-1cb654086d0f", "name": "Plan & map.pdf", "size": 15, "type": "application/pdf", "isPicture": false}], "inBin": false, "links": [{"url": "https://pinewick.example/sign-up", "label": "Sign up"}], "notes": "Two\nlines for editors", "place": "Hall", "rrule": "FREQ=WEEKLY;COUNT=6;BYDAY=TU,TH", "start": "2026-11-24T14:00:00", "state": "live", "title": "All there is “to say” 🦑", "allDay": false, "capLink": "headline", "contact": "Office, 0902 555 010", "removed": ["2026-12-03T14:00:00"], "calendar": "01a21fbb-34ce-7a40-a41e-e48abf73d9a5", "category": "01a21fbb-355b-7719-90de-dcda80b561d3", "inBreaks": "skip", "showFrom": "2026-11-01", "showUntil": "2027-06-30", "capMembers": "complete", "exceptions": [{"end": null, "place": null, "start": null, "title": null, "description": null, "isCancelled": true, "recurrenceId": "2026-12-01T14:00:00", "descriptionText": null}, {"end": null, "place": "", "start": null, "title": "Own title", "description": "<p>Its own text</p>", "isCancelled": false, "recurrenceId": "2026-12-08T14:00:00", "descriptionText": "Its own text"}, {"end": "2026-12-11T17:00:00", "place": null, "start": "2026-12-11T16:00:00", "title": null, "description": null, "isCancelled": false, "recurrenceId": "2026-12-10T14:00:00", "descriptionText": null}], "placements": ["01a21fbb-3369-76e0-9f99-5401c974edad"], "capEveryone": "times", "description": "<p>Bring <strong>lamps</strong>, see <a href=\"https://pinewick.example/\" target=\"_blank\" rel=\"noopener noreferrer\">the list</a>.</p>", "descriptionText": "Bring lamps, see the list (https://pinewick.example/)."}', '01a21fbc-e563-7c58-a3fb-2232d7407685');
INSERT INTO public.revision VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbc-e56d-7d14-9ee7-a017b1928057', 1, 'made', '01a21fbb-311c-7114-a480-b3af59fe0dab', '2026-11-23 12:01:49+00', '{"end": "2026-12-15T15:30:00", "tags": ["outdoors", "practical"], "zone": "Europe/Oslo", "cycle": null, "extra": ["2027-03-01T14:00:00"], "files": [{"id": "01a21fbc-e07d-7de6-86fa-1cb654086d0f", "name": "Plan & map.pdf", "size": 15, "type": "application/pdf", "isPicture": false}], "inBin": false, "links": [{"url": "https://pinewick.example/sign-up", "label": "Sign up"}], "notes": "Two\nlines for editors", "place": "Hall", "rrule": "FREQ=WEEKLY;COUNT=6;BYDAY=TU,TH", "start": "2026-12-15T14:00:00", "state": "live", "title": "Goes on differently", "allDay": false, "capLink": "headline", "contact": "", "removed": [], "calendar": "01a21fbb-34ce-7a40-a41e-e48abf73d9a5", "category": "01a21fbb-355b-7719-90de-dcda80b561d3", "inBreaks": "skip", "showFrom": "2026-11-01", "showUntil": "2027-06-30", "capMembers": "complete", "exceptions": [], "placements": ["01a21fbb-3369-76e0-9f99-5401c974edad"], "capEveryone": "times", "description": "<p>Bring <strong>lamps</strong>, see <a href=\"https://pinewick.example/\" target=\"_blank\" rel=\"noopener noreferrer\">the list</a>.</p>", "descriptionText": "Bring lamps, see the list (https://pinewick.example/)."}', '01a21fbc-e563-7c58-a3fb-2232d7407685');
INSERT INTO public.revision VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbc-e9a2-7ec2-8531-1263930a1cd0', 1, 'made', '01a21fbb-311c-7114-a480-b3af59fe0dab', '2026-11-23 12:01:50+00', '{"end": "2026-11-26T00:00:00", "tags": ["outdoors", "practical"], "zone": "America/Halifax", "cycle": {"count": null, "until": "2027-03-31", "numbers": [1, 2], "weekdays": [3]}, "extra": [], "files": [], "inBin": false, "links": [{"url": "https://pinewick.example/sign-up", "label": "Sign up"}], "notes": "Two\nlines for editors", "place": "Hall", "rrule": null, "start": "2026-11-25T00:00:00", "state": "live", "title": "By the cycle", "allDay": true, "capLink": null, "contact": "Office, 0902 555 010", "removed": [], "calendar": "01a21fbb-34ce-7a40-a41e-e48abf73d9a5", "category": "01a21fbb-355b-7719-90de-dcda80b561d3", "inBreaks": "ignore", "showFrom": null, "showUntil": null, "capMembers": null, "exceptions": [], "placements": [], "capEveryone": null, "description": "<p>Bring <strong>lamps</strong>, see <a href=\"https://pinewick.example/\" target=\"_blank\" rel=\"noopener noreferrer\">the list</a>.</p>", "descriptionText": "Bring lamps, see the list (https://pinewick.example/)."}', '01a21fbc-e9a2-7170-a57f-5fb935caf680');
INSERT INTO public.revision VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbc-e9c6-7e88-bb5a-d5876d24dcc4', 1, 'made', '01a21fbb-311c-7114-a480-b3af59fe0dab', '2026-11-23 12:01:50+00', '{"end": "2026-11-26T09:00:00", "tags": [], "zone": "America/Halifax", "cycle": null, "extra": [], "files": [], "inBin": false, "links": [], "notes": "", "place": "Hall", "rrule": null, "start": "2026-11-26T09:00:00", "state": "live", "title": "To the bin", "allDay": false, "capLink": null, "contact": "Office, 0902 555 010", "removed": [], "calendar": "01a21fbb-34ce-7a40-a41e-e48abf73d9a5", "category": "01a21fbb-355b-7719-90de-dcda80b561d3", "inBreaks": "ignore", "showFrom": null, "showUntil": null, "capMembers": null, "exceptions": [], "placements": [], "capEveryone": null, "description": "<p>Bring <strong>lamps</strong>, see <a href=\"https://pinewick.example/\" target=\"_blank\" rel=\"noopener noreferrer\">the list</a>.</p>", "descriptionText": "Bring lamps, see the list (https://pinewick.example/)."}', '01a21fbc-e9c6-7153-9eb6-9199fbf67366');
INSERT INTO public.revision VALUES ('01a21fbb-30d8-755c-9680-d87d45dee00b', '01a21fbc-e9c6-7e88-bb5a-d5876d24dcc4', 2, 'removed', '01a21fbb-311c-7114-a480-b3af59fe0dab', '2026-11-23 12:01:50+00', '{"end": "2026-11-26T09:00:00", "tags": [], "zone": "America/Halifax", "cycle": null, "extra": [], "files": [], "inBin": true, "links": [], "notes": "", "place": "Hall", "rrule": null, "start": "2026-11-26T09:00:00", "state": "live", "title": "To the bin", "allDay": false, "capLink": null, "contact": "Office, 0902 555 010", "removed": [], "calendar": "01a21fbb-34ce-7a40-a41e-e48abf73d9a5", "category": "01a21fbb-355b-7719-90de-dcda80b561d3", "inBreaks": "ignore", "showFrom": null, "showUntil": null, "capMembers": null, "exceptions": [], "placements": [], "capEveryone": null, "description": "<p>Bring <strong>lamps</strong>, see <a href=\"https://pinewick.example/\" target=\"_blank\" rel=\"noopener noreferrer\">the list</a>.</p>", "descriptionText": "Bring lamps, see the list (https://pinewick.example/)."}', '01a21fbc-e9e7-7cc1-828e-791158984709');
INSERT INTO public.schemaversions VALUES (1, 'Valtro.Store.Migrations.0001-first-slice.sql', '2026-11-28 01:18:10.847664');
INSERT INTO public.schemaversions VALUES (2, 'Valtro.Store.Migrations.0002-series-and-year-plans.sql', '2026-11-28 01:18:10.922461');
INSERT INTO public.schemaversions VALUES (3, 'Valtro.Store.Migrations.0003-people-and-disclosure.sql', '2026-11-28 01:18:11.014904');
INSERT INTO public.schemaversions VALUES (4, 'Valtro.Store.Migrations.0004-editions.sql', '2026-11-28 01:18:11.040484');
INSERT INTO public.schemaversions VALUES (5, 'Valtro.Store.Migrations.0005-work.sql', '2026-11-28 01:18:11.056043');
INSERT INTO public.schemaversions VALUES (6, 'Valtro.Store.Migrations.0006-texts.sql', '2026-11-28 01:18:11.062576');
INSERT INTO public.schemaversions VALUES (7, 'Valtro.Store.Migrations.0007-sessions.sql', '2026-11-28 01:18:11.070301');
INSERT INTO public.schemaversions VALUES (8, 'Valtro.Store.Migrations.0008-lists.sql', '2026-11-28 01:18:11.076506');
INSERT INTO public.schemaversions VALUES (9, 'Valtro.Store.Migrations.0009-feeds-anew.sql', '2026-11-28 01:18:11.078849');
INSERT INTO public.schemaversions VALUES (10, 'Valtro.Store.Migrations.0010-delivered.sql', '2026-11-28 01:18:11.097595');
INSERT INTO public.submission VALUES ('01a21fbb-38f1-74d4-beb4-e215d2d486d5', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'event', '01a21fbb-38ec-794d-bb28-75c3e72f9b35', '01a21fbb-34c5-76c8-9d08-77d5fcfd6f48', 'Seat trials', '01a21fbb-321f-773f-a12f-65905bdac863', '2026-11-23 12:00:00.722+00', NULL, NULL, 'open', '', NULL, NULL);
INSERT INTO public.submission VALUES ('01a21fbb-38fc-7429-b95c-433d9a155a4e', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'placement', '01a21fbb-36c7-7d11-877c-5ef07d2e5bf3', '01a21fbb-34ce-7a40-a41e-e48abf73d9a5', 'Winter regatta', '01a21fbb-321f-773f-a12f-65905bdac863', '2026-11-23 12:00:00.722+00', NULL, NULL, 'open', '', NULL, NULL);
INSERT INTO public.submission VALUES ('01a21fbc-eb2d-739d-806d-145fda48390d', '01a21fbb-30d8-755c-9680-d87d45dee00b', 'change', '01a21fbb-36bd-7c88-a7a5-18d7bb0e6024', '01a21fbb-34c5-76c8-9d08-77d5fcfd6f48', 'Ergometers', '01a21fbb-321f-773f-a12f-65905bdac863', '2026-11-23 12:01:50+00', '{"act": "edit", "keep": [], "move": null, "event": {"to": "19:00:00", "cap": {"link": null, "members": null, "everyone": null}, "date": "2026-11-23", "from": "17:30:00", "tags": [], "zone": "America/Halifax", "extra": [], "files": [], "links": [], "notes": "", "place": "Boathouse", "title": "As Cy would have it", "allDay": false, "repeat": {"by": null, "ends": "on", "skip": null, "text": null, "count": null, "month": null, "until": "2027-04-02", "numbers": null, "ordinal": null, "pattern": "weekly", "weekday": null, "interval": 1, "monthDay": null, "weekdays": [1, 3]}, "contact": "", "endDate": "2026-11-23", "isDraft": false, "removed": [], "inBreaks": "ignore", "showFrom": null, "showUntil": null, "calendarId": "01a21fbb-34c5-76c8-9d08-77d5fcfd6f48", "categoryId": "01a21fbb-3565-7615-8e90-69b4900aedec", "placements": [], "description": ""}, "scope": "this", "version": 2, "recurrenceId": "2026-11-23T17:30:00", "submissionId": null}', '{"to": "19:00:00", "cap": {"link": null, "members": null, "everyone": null}, "date": "2026-11-23", "from": "17:30:00", "tags": [], "zone": "America/Halifax", "extra": [], "files": [], "links": [], "notes": "", "place": "Boathouse", "title": "Ergometers", "allDay": false, "repeat": {"by": null, "ends": "on", "skip": null, "text": null, "count": null, "month": null, "until": "2027-04-02", "numbers": null, "ordinal": null, "pattern": "weekly", "weekday": null, "interval": 1, "monthDay": null, "weekdays": [1, 3]}, "contact": "", "endDate": "2026-11-23", "isDraft": false, "removed": [], "inBreaks": "ignore", "showFrom": null, "showUntil": null, "calendarId": "01a21fbb-34c5-76c8-9d08-77d5fcfd6f48", "categoryId": "01a21fbb-3565-7615-8e90-69b4900aedec", "placements": [], "description": ""}', 'open', '', NULL, NULL);
INSERT INTO public.year_plan VALUES ('01a21fbb-3504-7696-8076-b625c6c7bca6', '01a21fbb-30d8-755c-9680-d87d45dee00b', '2026/27', '2026-08-03', '2027-08-02', 'weeks', 2, true, 1);
INSERT INTO public.year_plan_span VALUES ('01a21fbb-3504-7696-8076-b625c6c7bca6', 'term', 'Autumn term', '2026-09-07', '2026-12-18');
INSERT INTO public.year_plan_span VALUES ('01a21fbb-3504-7696-8076-b625c6c7bca6', 'term', 'Spring term', '2027-01-04', '2027-04-02');
INSERT INTO public.year_plan_span VALUES ('01a21fbb-3504-7696-8076-b625c6c7bca6', 'break', 'Storm week', '2026-10-26', '2026-10-30');
INSERT INTO public.year_plan_span VALUES ('01a21fbb-3504-7696-8076-b625c6c7bca6', 'break', 'Winter break', '2026-12-19', '2027-01-03');
INSERT INTO public.year_plan_span VALUES ('01a21fbb-3504-7696-8076-b625c6c7bca6', 'break', 'Ice days', '2027-02-15', '2027-02-17');
SELECT pg_catalog.setval('public.schemaversions_schemaversionsid_seq', 10, true);
ALTER TABLE ONLY public.schemaversions
    ADD CONSTRAINT "PK_schemaversions_Id" PRIMARY KEY (schemaversionsid);
ALTER TABLE ONLY public.account
    ADD CONSTRAINT account_normalized_email_key UNIQUE (normalized_email);
ALTER TABLE ONLY public.account
    ADD CONSTRAINT account_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.artefact
    ADD CONSTRAINT artefact_pkey PRIMARY KEY (edition_id, audience, key);
ALTER TABLE ONLY public.audit
    ADD CONSTRAINT audit_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.calendar_group_member
    ADD CONSTRAINT calendar_group_member_pkey PRIMARY KEY (group_id, calendar_id);
ALTER TABLE ONLY public.calendar_group
    ADD CONSTRAINT calendar_group_organisation_id_id_key UNIQUE (organisation_id, id);
ALTER TABLE ONLY public.calendar_group
    ADD CONSTRAINT calendar_group_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.calendar
    ADD CONSTRAINT calendar_organisation_id_id_key UNIQUE (organisation_id, id);
ALTER TABLE ONLY public.calendar
    ADD CONSTRAINT calendar_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.calendar_role
    ADD CONSTRAINT calendar_role_pkey PRIMARY KEY (calendar_id, account_id);
ALTER TABLE ONLY public.category
    ADD CONSTRAINT category_organisation_id_id_key UNIQUE (organisation_id, id);
ALTER TABLE ONLY public.category
    ADD CONSTRAINT category_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.data_protection_key
    ADD CONSTRAINT data_protection_key_pkey PRIMARY KEY (friendly_name);
ALTER TABLE ONLY public.delivered
    ADD CONSTRAINT delivered_pkey PRIMARY KEY (edition_id, audience, variant, uid, recurrence_id);
ALTER TABLE ONLY public.delivery
    ADD CONSTRAINT delivery_pkey PRIMARY KEY (edition_id, audience, kind, program);
ALTER TABLE ONLY public.edition
    ADD CONSTRAINT edition_calendar_id_key UNIQUE (calendar_id);
ALTER TABLE ONLY public.edition_calendar_name
    ADD CONSTRAINT edition_calendar_name_pkey PRIMARY KEY (edition_id, name);
ALTER TABLE ONLY public.edition_draft
    ADD CONSTRAINT edition_draft_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.edition
    ADD CONSTRAINT edition_feed_uid_key UNIQUE (feed_uid);
ALTER TABLE ONLY public.edition
    ADD CONSTRAINT edition_organisation_id_id_key UNIQUE (organisation_id, id);
ALTER TABLE ONLY public.edition
    ADD CONSTRAINT edition_organisation_id_slug_key UNIQUE (organisation_id, slug);
ALTER TABLE ONLY public.edition
    ADD CONSTRAINT edition_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.edition_source
    ADD CONSTRAINT edition_source_pkey PRIMARY KEY (edition_id, calendar_id);
ALTER TABLE ONLY public.event_exception
    ADD CONSTRAINT event_exception_pkey PRIMARY KEY (event_id, recurrence_id);
ALTER TABLE ONLY public.event
    ADD CONSTRAINT event_organisation_id_id_key UNIQUE (organisation_id, id);
ALTER TABLE ONLY public.event
    ADD CONSTRAINT event_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.event
    ADD CONSTRAINT event_uid_key UNIQUE (uid);
ALTER TABLE ONLY public.failed_sign_in
    ADD CONSTRAINT failed_sign_in_pkey PRIMARY KEY (account, address);
ALTER TABLE ONLY public.file
    ADD CONSTRAINT file_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.invitation
    ADD CONSTRAINT invitation_digest_key UNIQUE (digest);
ALTER TABLE ONLY public.invitation
    ADD CONSTRAINT invitation_organisation_id_id_key UNIQUE (organisation_id, id);
ALTER TABLE ONLY public.invitation
    ADD CONSTRAINT invitation_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.invitation_role
    ADD CONSTRAINT invitation_role_pkey PRIMARY KEY (invitation_id, calendar_id);
ALTER TABLE ONLY public.mail
    ADD CONSTRAINT mail_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.membership
    ADD CONSTRAINT membership_pkey PRIMARY KEY (organisation_id, account_id);
ALTER TABLE ONLY public.notice
    ADD CONSTRAINT notice_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.organisation
    ADD CONSTRAINT organisation_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.organisation
    ADD CONSTRAINT organisation_slug_key UNIQUE (slug);
ALTER TABLE ONLY public.outward_name
    ADD CONSTRAINT outward_name_pkey PRIMARY KEY (edition_id, audience, variant, event_id, recurrence_id);
ALTER TABLE ONLY public.place
    ADD CONSTRAINT place_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.placement
    ADD CONSTRAINT placement_pkey PRIMARY KEY (event_id, calendar_id);
ALTER TABLE ONLY public.revision
    ADD CONSTRAINT revision_pkey PRIMARY KEY (event_id, version);
ALTER TABLE ONLY public.secret_link
    ADD CONSTRAINT secret_link_digest_key UNIQUE (digest);
ALTER TABLE ONLY public.secret_link
    ADD CONSTRAINT secret_link_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.session
    ADD CONSTRAINT session_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.year_plan_span
    ADD CONSTRAINT spans_do_not_overlap EXCLUDE USING gist (year_plan_id WITH =, kind WITH =, daterange(first_day, last_day, '[]'::text) WITH &&);
ALTER TABLE ONLY public.submission
    ADD CONSTRAINT submission_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.work
    ADD CONSTRAINT work_pkey PRIMARY KEY (kind, key);
ALTER TABLE ONLY public.year_plan
    ADD CONSTRAINT year_plan_organisation_id_id_key UNIQUE (organisation_id, id);
ALTER TABLE ONLY public.year_plan
    ADD CONSTRAINT year_plan_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.year_plan_span
    ADD CONSTRAINT year_plan_span_pkey PRIMARY KEY (year_plan_id, kind, first_day);
ALTER TABLE ONLY public.year_plan
    ADD CONSTRAINT year_plans_do_not_overlap EXCLUDE USING gist (organisation_id WITH =, daterange(first_day, last_day, '[]'::text) WITH &&);
CREATE INDEX audit_by_time ON public.audit USING btree (organisation_id, at DESC);
CREATE UNIQUE INDEX calendar_group_name_unique ON public.calendar_group USING btree (organisation_id, lower((name)::text));
CREATE UNIQUE INDEX calendar_plate_unique ON public.calendar USING btree (organisation_id, plate) WHERE (removed_at IS NULL);
CREATE UNIQUE INDEX category_name_unique ON public.category USING btree (organisation_id, lower((name)::text)) WHERE (retired_at IS NULL);
CREATE INDEX delivered_gone ON public.delivered USING btree (gone_at) WHERE (gone_at IS NOT NULL);
CREATE INDEX edition_draft_by_account ON public.edition_draft USING btree (account_id, made_at);
CREATE INDEX edition_source_by_calendar ON public.edition_source USING btree (calendar_id);
CREATE INDEX event_by_calendar ON public.event USING btree (home_calendar_id) WHERE (removed_at IS NULL);
CREATE INDEX event_by_calendar_and_reach ON public.event USING gist (reach) WHERE (removed_at IS NULL);
CREATE INDEX event_by_category ON public.event USING btree (category_id) WHERE (category_id IS NOT NULL);
CREATE INDEX event_by_file ON public.event USING gin (files jsonb_path_ops);
CREATE INDEX event_by_place ON public.event USING btree (organisation_id, lower(place)) WHERE (place <> ''::text);
CREATE INDEX event_in_bin ON public.event USING btree (organisation_id, removed_at) WHERE (removed_at IS NOT NULL);
CREATE UNIQUE INDEX invitation_open_once ON public.invitation USING btree (organisation_id, normalized_email) WHERE ((accepted_at IS NULL) AND (withdrawn_at IS NULL));
CREATE INDEX notice_to_mail ON public.notice USING btree (account_id, made_at) WHERE (mailed_at IS NULL);
CREATE INDEX outward_name_by_event ON public.outward_name USING btree (event_id);
CREATE UNIQUE INDEX place_name_unique ON public.place USING btree (organisation_id, lower(name)) WHERE (retired_at IS NULL);
CREATE INDEX placement_by_calendar ON public.placement USING btree (calendar_id);
CREATE INDEX revision_by_act ON public.revision USING btree (act_id);
CREATE INDEX revision_by_time ON public.revision USING btree (organisation_id, made_at);
CREATE UNIQUE INDEX secret_link_one_at_a_time ON public.secret_link USING btree (edition_id, COALESCE(account_id, '00000000-0000-0000-0000-000000000000'::uuid)) WHERE (ended_at IS NULL);
CREATE INDEX session_by_account ON public.session USING btree (account_id) WHERE (ended_at IS NULL);
CREATE INDEX submission_by_proposer ON public.submission USING btree (proposer_id, made_at DESC);
CREATE UNIQUE INDEX submission_of_a_placement_once ON public.submission USING btree (event_id, calendar_id) WHERE ((kind = 'placement'::text) AND (state = 'open'::text));
CREATE UNIQUE INDEX submission_of_an_event_once ON public.submission USING btree (event_id) WHERE ((kind = 'event'::text) AND (state = 'open'::text));
CREATE INDEX submission_open ON public.submission USING btree (organisation_id, calendar_id) WHERE (state = 'open'::text);
CREATE INDEX work_due ON public.work USING btree (kind, due_at) WHERE (set_aside_at IS NULL);
CREATE INDEX work_failing ON public.work USING btree (organisation_id) WHERE (failed_since IS NOT NULL);
ALTER TABLE ONLY public.artefact
    ADD CONSTRAINT artefact_edition_id_fkey FOREIGN KEY (edition_id) REFERENCES public.edition(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.artefact
    ADD CONSTRAINT artefact_organisation_id_fkey FOREIGN KEY (organisation_id) REFERENCES public.organisation(id);
ALTER TABLE ONLY public.audit
    ADD CONSTRAINT audit_account_id_fkey FOREIGN KEY (account_id) REFERENCES public.account(id);
ALTER TABLE ONLY public.audit
    ADD CONSTRAINT audit_organisation_id_fkey FOREIGN KEY (organisation_id) REFERENCES public.organisation(id);
ALTER TABLE ONLY public.calendar_group_member
    ADD CONSTRAINT calendar_group_member_organisation_id_calendar_id_fkey FOREIGN KEY (organisation_id, calendar_id) REFERENCES public.calendar(organisation_id, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.calendar_group_member
    ADD CONSTRAINT calendar_group_member_organisation_id_group_id_fkey FOREIGN KEY (organisation_id, group_id) REFERENCES public.calendar_group(organisation_id, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.calendar_group
    ADD CONSTRAINT calendar_group_organisation_id_fkey FOREIGN KEY (organisation_id) REFERENCES public.organisation(id);
ALTER TABLE ONLY public.calendar
    ADD CONSTRAINT calendar_organisation_id_fkey FOREIGN KEY (organisation_id) REFERENCES public.organisation(id);
ALTER TABLE ONLY public.calendar
    ADD CONSTRAINT calendar_organisation_id_merged_into_fkey FOREIGN KEY (organisation_id, merged_into) REFERENCES public.calendar(organisation_id, id);
ALTER TABLE ONLY public.calendar_role
    ADD CONSTRAINT calendar_role_organisation_id_account_id_fkey FOREIGN KEY (organisation_id, account_id) REFERENCES public.membership(organisation_id, account_id);
ALTER TABLE ONLY public.calendar_role
    ADD CONSTRAINT calendar_role_organisation_id_calendar_id_fkey FOREIGN KEY (organisation_id, calendar_id) REFERENCES public.calendar(organisation_id, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.category
    ADD CONSTRAINT category_organisation_id_fkey FOREIGN KEY (organisation_id) REFERENCES public.organisation(id);
ALTER TABLE ONLY public.category
    ADD CONSTRAINT category_organisation_id_merged_into_fkey FOREIGN KEY (organisation_id, merged_into) REFERENCES public.category(organisation_id, id);
ALTER TABLE ONLY public.delivered
    ADD CONSTRAINT delivered_organisation_id_edition_id_fkey FOREIGN KEY (organisation_id, edition_id) REFERENCES public.edition(organisation_id, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.delivery
    ADD CONSTRAINT delivery_edition_id_fkey FOREIGN KEY (edition_id) REFERENCES public.edition(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.delivery
    ADD CONSTRAINT delivery_organisation_id_fkey FOREIGN KEY (organisation_id) REFERENCES public.organisation(id);
ALTER TABLE ONLY public.edition_calendar_name
    ADD CONSTRAINT edition_calendar_name_organisation_id_calendar_id_fkey FOREIGN KEY (organisation_id, calendar_id) REFERENCES public.calendar(organisation_id, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.edition_calendar_name
    ADD CONSTRAINT edition_calendar_name_organisation_id_edition_id_fkey FOREIGN KEY (organisation_id, edition_id) REFERENCES public.edition(organisation_id, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.edition_draft
    ADD CONSTRAINT edition_draft_account_id_fkey FOREIGN KEY (account_id) REFERENCES public.account(id);
ALTER TABLE ONLY public.edition_draft
    ADD CONSTRAINT edition_draft_organisation_id_fkey FOREIGN KEY (organisation_id) REFERENCES public.organisation(id);
ALTER TABLE ONLY public.edition
    ADD CONSTRAINT edition_organisation_id_calendar_id_fkey FOREIGN KEY (organisation_id, calendar_id) REFERENCES public.calendar(organisation_id, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.edition_source
    ADD CONSTRAINT edition_source_organisation_id_calendar_id_fkey FOREIGN KEY (organisation_id, calendar_id) REFERENCES public.calendar(organisation_id, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.edition_source
    ADD CONSTRAINT edition_source_organisation_id_edition_id_fkey FOREIGN KEY (organisation_id, edition_id) REFERENCES public.edition(organisation_id, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.event_exception
    ADD CONSTRAINT event_exception_organisation_id_event_id_fkey FOREIGN KEY (organisation_id, event_id) REFERENCES public.event(organisation_id, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.event
    ADD CONSTRAINT event_made_by_fkey FOREIGN KEY (made_by) REFERENCES public.account(id);
ALTER TABLE ONLY public.event
    ADD CONSTRAINT event_organisation_id_category_id_fkey FOREIGN KEY (organisation_id, category_id) REFERENCES public.category(organisation_id, id);
ALTER TABLE ONLY public.event
    ADD CONSTRAINT event_organisation_id_home_calendar_id_fkey FOREIGN KEY (organisation_id, home_calendar_id) REFERENCES public.calendar(organisation_id, id);
ALTER TABLE ONLY public.file
    ADD CONSTRAINT file_made_by_fkey FOREIGN KEY (made_by) REFERENCES public.account(id);
ALTER TABLE ONLY public.file
    ADD CONSTRAINT file_organisation_id_fkey FOREIGN KEY (organisation_id) REFERENCES public.organisation(id);
ALTER TABLE ONLY public.invitation
    ADD CONSTRAINT invitation_invited_by_fkey FOREIGN KEY (invited_by) REFERENCES public.account(id);
ALTER TABLE ONLY public.invitation
    ADD CONSTRAINT invitation_organisation_id_fkey FOREIGN KEY (organisation_id) REFERENCES public.organisation(id);
ALTER TABLE ONLY public.invitation_role
    ADD CONSTRAINT invitation_role_organisation_id_calendar_id_fkey FOREIGN KEY (organisation_id, calendar_id) REFERENCES public.calendar(organisation_id, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.invitation_role
    ADD CONSTRAINT invitation_role_organisation_id_invitation_id_fkey FOREIGN KEY (organisation_id, invitation_id) REFERENCES public.invitation(organisation_id, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.mail
    ADD CONSTRAINT mail_organisation_id_fkey FOREIGN KEY (organisation_id) REFERENCES public.organisation(id);
ALTER TABLE ONLY public.membership
    ADD CONSTRAINT membership_account_id_fkey FOREIGN KEY (account_id) REFERENCES public.account(id);
ALTER TABLE ONLY public.membership
    ADD CONSTRAINT membership_organisation_id_fkey FOREIGN KEY (organisation_id) REFERENCES public.organisation(id);
ALTER TABLE ONLY public.notice
    ADD CONSTRAINT notice_account_id_fkey FOREIGN KEY (account_id) REFERENCES public.account(id);
ALTER TABLE ONLY public.notice
    ADD CONSTRAINT notice_organisation_id_fkey FOREIGN KEY (organisation_id) REFERENCES public.organisation(id);
ALTER TABLE ONLY public.outward_name
    ADD CONSTRAINT outward_name_organisation_id_edition_id_fkey FOREIGN KEY (organisation_id, edition_id) REFERENCES public.edition(organisation_id, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.outward_name
    ADD CONSTRAINT outward_name_organisation_id_event_id_fkey FOREIGN KEY (organisation_id, event_id) REFERENCES public.event(organisation_id, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.place
    ADD CONSTRAINT place_organisation_id_fkey FOREIGN KEY (organisation_id) REFERENCES public.organisation(id);
ALTER TABLE ONLY public.placement
    ADD CONSTRAINT placement_organisation_id_calendar_id_fkey FOREIGN KEY (organisation_id, calendar_id) REFERENCES public.calendar(organisation_id, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.placement
    ADD CONSTRAINT placement_organisation_id_event_id_fkey FOREIGN KEY (organisation_id, event_id) REFERENCES public.event(organisation_id, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.revision
    ADD CONSTRAINT revision_account_id_fkey FOREIGN KEY (account_id) REFERENCES public.account(id);
ALTER TABLE ONLY public.revision
    ADD CONSTRAINT revision_organisation_id_event_id_fkey FOREIGN KEY (organisation_id, event_id) REFERENCES public.event(organisation_id, id);
ALTER TABLE ONLY public.secret_link
    ADD CONSTRAINT secret_link_account_id_fkey FOREIGN KEY (account_id) REFERENCES public.account(id);
ALTER TABLE ONLY public.secret_link
    ADD CONSTRAINT secret_link_organisation_id_edition_id_fkey FOREIGN KEY (organisation_id, edition_id) REFERENCES public.edition(organisation_id, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.session
    ADD CONSTRAINT session_account_id_fkey FOREIGN KEY (account_id) REFERENCES public.account(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.submission
    ADD CONSTRAINT submission_decided_by_fkey FOREIGN KEY (decided_by) REFERENCES public.account(id);
ALTER TABLE ONLY public.submission
    ADD CONSTRAINT submission_organisation_id_calendar_id_fkey FOREIGN KEY (organisation_id, calendar_id) REFERENCES public.calendar(organisation_id, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.submission
    ADD CONSTRAINT submission_organisation_id_event_id_fkey FOREIGN KEY (organisation_id, event_id) REFERENCES public.event(organisation_id, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.submission
    ADD CONSTRAINT submission_proposer_id_fkey FOREIGN KEY (proposer_id) REFERENCES public.account(id);
ALTER TABLE ONLY public.work
    ADD CONSTRAINT work_organisation_id_fkey FOREIGN KEY (organisation_id) REFERENCES public.organisation(id);
ALTER TABLE ONLY public.year_plan
    ADD CONSTRAINT year_plan_organisation_id_fkey FOREIGN KEY (organisation_id) REFERENCES public.organisation(id);
ALTER TABLE ONLY public.year_plan_span
    ADD CONSTRAINT year_plan_span_year_plan_id_fkey FOREIGN KEY (year_plan_id) REFERENCES public.year_plan(id) ON DELETE CASCADE;
ALTER TABLE public.account ENABLE ROW LEVEL SECURITY;
ALTER TABLE public.artefact ENABLE ROW LEVEL SECURITY;
ALTER TABLE public.audit ENABLE ROW LEVEL SECURITY;
ALTER TABLE public.calendar ENABLE ROW LEVEL SECURITY;
ALTER TABLE public.calendar_group ENABLE ROW LEVEL SECURITY;
ALTER TABLE public.calendar_group_member ENABLE ROW LEVEL SECURITY;
ALTER TABLE public.calendar_role ENABLE ROW LEVEL SECURITY;
ALTER TABLE public.category ENABLE ROW LEVEL SECURITY;
ALTER TABLE public.delivered ENABLE ROW LEVEL SECURITY;
ALTER TABLE public.delivery ENABLE ROW LEVEL SECURITY;
ALTER TABLE public.edition ENABLE ROW LEVEL SECURITY;
ALTER TABLE public.edition_calendar_name ENABLE ROW LEVEL SECURITY;
ALTER TABLE public.edition_draft ENABLE ROW LEVEL SECURITY;
ALTER TABLE public.edition_source ENABLE ROW LEVEL SECURITY;
ALTER TABLE public.event ENABLE ROW LEVEL SECURITY;
ALTER TABLE public.event_exception ENABLE ROW LEVEL SECURITY;
ALTER TABLE public.failed_sign_in ENABLE ROW LEVEL SECURITY;
ALTER TABLE public.file ENABLE ROW LEVEL SECURITY;
ALTER TABLE public.invitation ENABLE ROW LEVEL SECURITY;
ALTER TABLE public.invitation_role ENABLE ROW LEVEL SECURITY;
ALTER TABLE public.mail ENABLE ROW LEVEL SECURITY;
ALTER TABLE public.membership ENABLE ROW LEVEL SECURITY;
ALTER TABLE public.notice ENABLE ROW LEVEL SECURITY;
ALTER TABLE public.organisation ENABLE ROW LEVEL SECURITY;
ALTER TABLE public.outward_name ENABLE ROW LEVEL SECURITY;
ALTER TABLE public.place ENABLE ROW LEVEL SECURITY;
ALTER TABLE public.placement ENABLE ROW LEVEL SECURITY;
ALTER TABLE public.revision ENABLE ROW LEVEL SECURITY;
ALTER TABLE public.secret_link ENABLE ROW LEVEL SECURITY;
ALTER TABLE public.session ENABLE ROW LEVEL SECURITY;
ALTER TABLE public.submission ENABLE ROW LEVEL SECURITY;
CREATE POLICY wall ON public.account USING (((( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = 'all'::text) OR (EXISTS ( SELECT
   FROM public.membership m
  WHERE (m.account_id = account.id)))));
CREATE POLICY wall ON public.artefact USING (((( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = 'all'::text) OR (( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = (organisation_id)::text)));
CREATE POLICY wall ON public.audit USING (((( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = 'all'::text) OR (( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = (organisation_id)::text)));
CREATE POLICY wall ON public.calendar USING (((( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = 'all'::text) OR (( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = (organisation_id)::text)));
CREATE POLICY wall ON public.calendar_group USING (((( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = 'all'::text) OR (( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = (organisation_id)::text)));
CREATE POLICY wall ON public.calendar_group_member USING (((( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = 'all'::text) OR (( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = (organisation_id)::text)));
CREATE POLICY wall ON public.calendar_role USING (((( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = 'all'::text) OR (( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = (organisation_id)::text)));
CREATE POLICY wall ON public.category USING (((( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = 'all'::text) OR (( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = (organisation_id)::text)));
CREATE POLICY wall ON public.delivered USING (((( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = 'all'::text) OR (( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = (organisation_id)::text)));
CREATE POLICY wall ON public.delivery USING (((( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = 'all'::text) OR (( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = (organisation_id)::text)));
CREATE POLICY wall ON public.edition USING (((( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = 'all'::text) OR (( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = (organisation_id)::text)));
CREATE POLICY wall ON public.edition_calendar_name USING (((( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = 'all'::text) OR (( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = (organisation_id)::text)));
CREATE POLICY wall ON public.edition_draft USING (((( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = 'all'::text) OR (( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = (organisation_id)::text)));
CREATE POLICY wall ON public.edition_source USING (((( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = 'all'::text) OR (( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = (organisation_id)::text)));
CREATE POLICY wall ON public.event USING (((( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = 'all'::text) OR (( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = (organisation_id)::text)));
CREATE POLICY wall ON public.event_exception USING (((( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = 'all'::text) OR (( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = (organisation_id)::text)));
CREATE POLICY wall ON public.failed_sign_in USING ((( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = 'all'::text));
CREATE POLICY wall ON public.file USING (((( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = 'all'::text) OR (( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = (organisation_id)::text)));
CREATE POLICY wall ON public.invitation USING (((( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = 'all'::text) OR (( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = (organisation_id)::text)));
CREATE POLICY wall ON public.invitation_role USING (((( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = 'all'::text) OR (( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = (organisation_id)::text)));
CREATE POLICY wall ON public.mail USING (((( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = 'all'::text) OR (( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = (organisation_id)::text)));
CREATE POLICY wall ON public.membership USING (((( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = 'all'::text) OR (( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = (organisation_id)::text)));
CREATE POLICY wall ON public.notice USING (((( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = 'all'::text) OR (( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = (organisation_id)::text)));
CREATE POLICY wall ON public.organisation USING (((( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = 'all'::text) OR (( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = (id)::text)));
CREATE POLICY wall ON public.outward_name USING (((( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = 'all'::text) OR (( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = (organisation_id)::text)));
CREATE POLICY wall ON public.place USING (((( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = 'all'::text) OR (( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = (organisation_id)::text)));
CREATE POLICY wall ON public.placement USING (((( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = 'all'::text) OR (( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = (organisation_id)::text)));
CREATE POLICY wall ON public.revision USING (((( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = 'all'::text) OR (( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = (organisation_id)::text)));
CREATE POLICY wall ON public.secret_link USING (((( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = 'all'::text) OR (( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = (organisation_id)::text)));
CREATE POLICY wall ON public.session USING ((( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = 'all'::text));
CREATE POLICY wall ON public.submission USING (((( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = 'all'::text) OR (( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = (organisation_id)::text)));
CREATE POLICY wall ON public.work USING (((( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = 'all'::text) OR (( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = (organisation_id)::text)));
CREATE POLICY wall ON public.year_plan USING (((( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = 'all'::text) OR (( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = (organisation_id)::text)));
CREATE POLICY wall ON public.year_plan_span USING (((( SELECT current_setting('valtro.organisation'::text, true) AS current_setting) = 'all'::text) OR (EXISTS ( SELECT
   FROM public.year_plan p
  WHERE (p.id = year_plan_span.year_plan_id)))));
ALTER TABLE public.work ENABLE ROW LEVEL SECURITY;
ALTER TABLE public.year_plan ENABLE ROW LEVEL SECURITY;
ALTER TABLE public.year_plan_span ENABLE ROW LEVEL SECURITY;
