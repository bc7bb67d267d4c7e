/* Records around the end of a packet, and by order of software: the words before and behind, and the mark. */
#include "drivers/converter_reader.h"
#include "drivers/signal_probe.h"

static void record(void)
{
    while (!signal_probe_is_full(PROBE_BASE)) {
    }
    exercise_expect("disarmed", *signal_probe_register(PROBE_BASE, 0u), 0u);
    *signal_probe_register(PROBE_BASE, 16u) = 5u;
    for (unsigned at = 5; at < 9u; at++) {
        exercise_hex(*signal_probe_register(PROBE_BASE, 24u));
    }
    exercise_expect("went on", *signal_probe_register(PROBE_BASE, 16u), 9u);
    /* The mark stands behind the bits of the word. */
    *signal_probe_register(PROBE_BASE, 20u) = 1u;
    *signal_probe_register(PROBE_BASE, 16u) = 6u;
    for (unsigned at = 6; at < 10u; at++) {
        exercise_hex(*signal_probe_register(PROBE_BASE, 24u));
    }
    *signal_probe_register(PROBE_BASE, 20u) = 0u;
}

static void exercise(void)
{
    converter_reader_start(READER_BASE, 400u);
    signal_probe_arm(PROBE_BASE, 0u, 0u);
    exercise_expect("waits", signal_probe_is_triggered(PROBE_BASE), 0u);
    record();
    signal_probe_force(PROBE_BASE);
    record();
    exercise_wait(PROBE_RECORDED_PLIC_SOURCE);
    signal_probe_arm(PROBE_BASE, 0u, 0u);
    exercise_done(PROBE_RECORDED_PLIC_SOURCE);
    exercise_expect("again", signal_probe_is_full(PROBE_BASE), 0u);
    exercise_wait(PROBE_RECORDED_PLIC_SOURCE);
    exercise_expect("full", signal_probe_is_full(PROBE_BASE), 1u);
    signal_probe_arm(PROBE_BASE, 0u, 0u);
    exercise_done(PROBE_RECORDED_PLIC_SOURCE);
}
