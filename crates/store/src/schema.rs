//! Tables as Diesel sees them; kept by `diesel print-schema` from the migrations.

diesel::table! {
    bays (id) {
        id -> Int8,
        shop_id -> Int8,
        name -> Text,
        has_lift -> Bool,
        recorded_by -> Int8,
        recorded_at -> Timestamptz,
        withdrawn_by -> Nullable<Int8>,
        withdrawn_at -> Nullable<Timestamptz>,
    }
}

diesel::table! {
    bookings (id) {
        id -> Int8,
        shop_id -> Int8,
        bay_id -> Int8,
        job_id -> Int8,
        begins_at -> Timestamptz,
        ends_at -> Timestamptz,
        person_id -> Nullable<Int8>,
        second_id -> Nullable<Int8>,
        follows -> Nullable<Int8>,
        recorded_by -> Int8,
        recorded_at -> Timestamptz,
        withdrawn_by -> Nullable<Int8>,
        withdrawn_at -> Nullable<Timestamptz>,
    }
}

diesel::table! {
    calendar_links (id) {
        id -> Int8,
        shop_id -> Int8,
        key_hash -> Text,
        made_by -> Int8,
        made_at -> Timestamptz,
        revoked_at -> Nullable<Timestamptz>,
    }
}

diesel::table! {
    calls (id) {
        id -> Int8,
        shop_id -> Int8,
        entry -> Jsonb,
        follows -> Nullable<Int8>,
        job_id -> Nullable<Int8>,
        recorded_by -> Int8,
        recorded_at -> Timestamptz,
        withdrawn_by -> Nullable<Int8>,
        withdrawn_at -> Nullable<Timestamptz>,
    }
}

diesel::table! {
    corrections (id) {
        id -> Int8,
        shop_id -> Int8,
        job_id -> Int8,
        entry -> Jsonb,
        recorded_by -> Int8,
        recorded_at -> Timestamptz,
        withdrawn_at -> Nullable<Timestamptz>,
    }
}

diesel::table! {
    customers (id) {
        id -> Int8,
        shop_id -> Int8,
        name -> Text,
        phone -> Text,
        note -> Text,
        revision -> Int4,
        recorded_by -> Int8,
        recorded_at -> Timestamptz,
        erased_at -> Nullable<Timestamptz>,
    }
}

diesel::table! {
    due_marks (id) {
        id -> Int8,
        shop_id -> Int8,
        job_id -> Int8,
        what -> Text,
        mark -> Text,
        note -> Text,
        recorded_by -> Int8,
        recorded_at -> Timestamptz,
    }
}

diesel::table! {
    failed_sign_ins (id) {
        id -> Int8,
        subject -> Text,
        failed_at -> Timestamptz,
    }
}

diesel::table! {
    fittings (id) {
        id -> Int8,
        shop_id -> Int8,
        job_id -> Int8,
        correction_id -> Int8,
        predicted -> Jsonb,
        recorded_by -> Int8,
        recorded_at -> Timestamptz,
        withdrawn_at -> Nullable<Timestamptz>,
        promise -> Nullable<Jsonb>,
    }
}

diesel::table! {
    invitations (id) {
        id -> Int8,
        key_hash -> Text,
        kind -> Text,
        shop_id -> Nullable<Int8>,
        name -> Nullable<Text>,
        role -> Nullable<Text>,
        person_id -> Nullable<Int8>,
        made_by -> Nullable<Int8>,
        made_at -> Timestamptz,
        expires_at -> Timestamptz,
        used_at -> Nullable<Timestamptz>,
        revoked_at -> Nullable<Timestamptz>,
    }
}

diesel::table! {
    job_changes (id) {
        id -> Int8,
        shop_id -> Int8,
        job_id -> Int8,
        what -> Text,
        before -> Nullable<Jsonb>,
        after -> Nullable<Jsonb>,
        changed_by -> Int8,
        changed_at -> Timestamptz,
    }
}

diesel::table! {
    job_dues (id) {
        id -> Int8,
        shop_id -> Int8,
        job_id -> Int8,
        what -> Text,
        day -> Date,
    }
}

diesel::table! {
    job_sheets (id) {
        id -> Int8,
        shop_id -> Int8,
        job_id -> Int8,
        kind -> Text,
        entry -> Jsonb,
        recorded_by -> Int8,
        recorded_at -> Timestamptz,
        withdrawn_at -> Nullable<Timestamptz>,
        follows -> Nullable<Int8>,
    }
}

diesel::table! {
    job_standings (job_id) {
        job_id -> Int8,
        shop_id -> Int8,
        revision -> Int4,
        standing -> Jsonb,
        rules -> Text,
        beside -> Int4,
    }
}

diesel::table! {
    jobs (id) {
        id -> Int8,
        shop_id -> Int8,
        number -> Int4,
        label -> Text,
        vehicle_class -> Text,
        rear_wheels -> Text,
        wheelbase -> Jsonb,
        front_rating -> Jsonb,
        rear_rating -> Jsonb,
        gross_rating -> Nullable<Jsonb>,
        kerb_front -> Nullable<Jsonb>,
        kerb_rear -> Nullable<Jsonb>,
        datum -> Nullable<Text>,
        rear_rise_confirmed -> Bool,
        revision -> Int4,
        revised_by -> Int8,
        revised_at -> Timestamptz,
        opened_by -> Int8,
        opened_at -> Timestamptz,
        finished_at -> Nullable<Timestamptz>,
        axle_spread -> Nullable<Jsonb>,
        equalised -> Bool,
        vehicle_id -> Nullable<Int8>,
        assigned_to -> Nullable<Int8>,
        promised_on -> Nullable<Date>,
        comes_back_from -> Nullable<Int8>,
        searched -> Text,
        beside -> Int4,
    }
}

diesel::table! {
    known_devices (key_hash, shop_id, person_id) {
        key_hash -> Text,
        shop_id -> Int8,
        person_id -> Int8,
        last_at -> Timestamptz,
    }
}

diesel::table! {
    ledger_lines (id) {
        id -> Int8,
        shop_id -> Int8,
        job_id -> Int8,
        kind -> Text,
        part_number -> Text,
        vehicle_class -> Text,
        axle_end -> Text,
        load_state -> Text,
        load_si -> Nullable<Float8>,
        before_m -> Float8,
        promised_m -> Float8,
        band_m -> Float8,
        read_m -> Float8,
        first_m -> Nullable<Float8>,
        deviations -> Nullable<Float8>,
        sd -> Nullable<Float8>,
        says_the_most -> Bool,
        read_on -> Date,
    }
}

diesel::table! {
    papers (id) {
        id -> Int8,
        shop_id -> Int8,
        job_id -> Int8,
        entry -> Jsonb,
        recorded_by -> Int8,
        recorded_at -> Timestamptz,
    }
}

diesel::table! {
    people (id) {
        id -> Int8,
        shop_id -> Int8,
        name -> Text,
        trade -> Text,
        length_unit -> Text,
        weight_unit -> Text,
        created_at -> Timestamptz,
        role -> Text,
        password_hash -> Nullable<Text>,
        pin_hash -> Nullable<Text>,
        left_at -> Nullable<Timestamptz>,
    }
}

diesel::table! {
    photographs (id) {
        id -> Int8,
        shop_id -> Int8,
        job_id -> Int8,
        subject -> Text,
        jpeg -> Bytea,
        width -> Int4,
        height -> Int4,
        taken_by -> Int8,
        taken_at -> Timestamptz,
        withdrawn_by -> Nullable<Int8>,
        withdrawn_at -> Nullable<Timestamptz>,
    }
}

diesel::table! {
    readings (id) {
        id -> Int8,
        shop_id -> Int8,
        job_id -> Int8,
        phase -> Text,
        load_state -> Text,
        place -> Text,
        ordinal -> Int2,
        datum -> Text,
        value_text -> Text,
        value_unit -> Text,
        value_si -> Float8,
        taken_by -> Int8,
        taken_at -> Timestamptz,
        withdrawn_by -> Nullable<Int8>,
        withdrawn_at -> Nullable<Timestamptz>,
        withdrawn_why -> Nullable<Text>,
    }
}

diesel::table! {
    record_switches (id) {
        id -> Int8,
        shop_id -> Int8,
        part_number -> Text,
        counts -> Bool,
        recorded_by -> Int8,
        recorded_at -> Timestamptz,
    }
}

diesel::table! {
    sessions (key_hash) {
        key_hash -> Text,
        shop_id -> Nullable<Int8>,
        person_id -> Nullable<Int8>,
        state -> Jsonb,
        expires_at -> Timestamptz,
        began_at -> Timestamptz,
        seen_at -> Timestamptz,
        tablet_id -> Nullable<Int8>,
    }
}

diesel::table! {
    shelf_parts (id) {
        id -> Int8,
        shop_id -> Int8,
        number -> Text,
        kind -> Text,
        searched -> Text,
        entry -> Jsonb,
        follows -> Nullable<Int8>,
        recorded_by -> Int8,
        recorded_at -> Timestamptz,
        withdrawn_by -> Nullable<Int8>,
        withdrawn_at -> Nullable<Timestamptz>,
    }
}

diesel::table! {
    shop_changes (id) {
        id -> Int8,
        shop_id -> Int8,
        what -> Text,
        subject -> Text,
        before -> Nullable<Jsonb>,
        after -> Nullable<Jsonb>,
        changed_by -> Int8,
        changed_at -> Timestamptz,
    }
}

diesel::table! {
    shops (id) {
        id -> Int8,
        name -> Text,
        created_at -> Timestamptz,
        currency -> Text,
        weights -> Nullable<Jsonb>,
        terms -> Nullable<Jsonb>,
        handle -> Text,
        demo -> Bool,
    }
}

diesel::table! {
    submissions (shop_id, person_id, form, token) {
        shop_id -> Int8,
        person_id -> Int8,
        form -> Text,
        token -> Text,
        content_hash -> Text,
        earlier_hashes -> Array<Text>,
        job_id -> Nullable<Int8>,
        revision -> Nullable<Int4>,
        sent_at -> Timestamptz,
    }
}

diesel::table! {
    tablets (id) {
        id -> Int8,
        shop_id -> Int8,
        name -> Text,
        key_hash -> Text,
        enrolled_by -> Int8,
        enrolled_at -> Timestamptz,
        revoked_by -> Nullable<Int8>,
        revoked_at -> Nullable<Timestamptz>,
    }
}

diesel::table! {
    vehicles (id) {
        id -> Int8,
        shop_id -> Int8,
        customer_id -> Nullable<Int8>,
        plate -> Text,
        plate_key -> Text,
        vehicle_class -> Text,
        revision -> Int4,
        recorded_by -> Int8,
        recorded_at -> Timestamptz,
    }
}

diesel::table! {
    wrench_ticks (id) {
        id -> Int8,
        shop_id -> Int8,
        job_id -> Int8,
        device_key -> Text,
        entry -> Jsonb,
        ticked_at -> Timestamptz,
        recorded_by -> Int8,
        recorded_at -> Timestamptz,
    }
}

diesel::joinable!(calls -> jobs (job_id));

diesel::allow_tables_to_appear_in_same_query!(
    bays,
    bookings,
    calendar_links,
    calls,
    corrections,
    customers,
    due_marks,
    failed_sign_ins,
    fittings,
    invitations,
    job_changes,
    job_dues,
    job_sheets,
    job_standings,
    jobs,
    known_devices,
    ledger_lines,
    papers,
    people,
    photographs,
    readings,
    record_switches,
    sessions,
    shelf_parts,
    shop_changes,
    shops,
    submissions,
    tablets,
    vehicles,
    wrench_ticks,
);
