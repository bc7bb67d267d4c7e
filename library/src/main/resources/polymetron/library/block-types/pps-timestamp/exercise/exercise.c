/*
 * Seconds of 10,000 cycles: by themselves first, then with a receiver's pulses that come every 10,100 cycles, one of which is
 * missing, and one is a stray. They follow each other, can be set, interrupt, and cycles belong to their second.
 */
#include "drivers/pps_timestamp.h"

static uint32_t next_event(void)
{
    uint32_t events;
    while ((events = pps_timestamp_take(PPS_BASE, 7u)) == 0u) {
    }
    return events;
}

static void exercise(void)
{
    uint32_t cycles;
    exercise_expect("nominal", pps_timestamp_length(PPS_BASE), 10000u);
    pps_timestamp_set(PPS_BASE, 1000u);
    (void)pps_timestamp_take(PPS_BASE, 7u);
    pps_timestamp_interrupt(PPS_BASE, true);
    exercise_wait(PPS_SECOND_PLIC_SOURCE);
    exercise_expect("second", pps_timestamp_now(PPS_BASE, &cycles), 1001u);
    exercise_between("just begun", cycles, 1u, 1000u);
    exercise_expect("event", pps_timestamp_take(PPS_BASE, 7u), pps_timestamp_pulse);
    exercise_done(PPS_SECOND_PLIC_SOURCE);
    uint32_t before = cycles;
    exercise_expect("same second", pps_timestamp_now(PPS_BASE, &cycles), 1001u);
    exercise_between("cycles go on", cycles, before + 1u, 9999u);
    exercise_expect("held", *pps_timestamp_register(PPS_BASE, 12u), cycles);
    exercise_say("ready\n");
    for (unsigned at = 0; at < 9u; at++) {
        uint32_t events = next_event();
        uint32_t second = pps_timestamp_now(PPS_BASE, &cycles);
        exercise_hex(events << 28 | second);
        uint32_t length = pps_timestamp_length(PPS_BASE);
        exercise_between("length", length, at < 2u ? 10000u : 10050u, at < 2u ? 10000u : 10150u);
        exercise_between("begins again", cycles, 1u, (events & 4u) != 0u ? 9000u : 1000u);
    }
    *pps_timestamp_register(PPS_BASE, 0u) = 0u;
    (void)pps_timestamp_take(PPS_BASE, 7u);
    exercise_expect("by itself", next_event(), pps_timestamp_pulse);
}
