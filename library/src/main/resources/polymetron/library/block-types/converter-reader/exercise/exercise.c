/* Samples of the converter at a steady rate: the newest ones, their rate, and what the stream brought of them. */
#include "drivers/converter_reader.h"
#include "drivers/signal_probe.h"

static void exercise(void)
{
    uint32_t words[32];
    signal_probe_arm(PROBE_BASE, 0u, 0u);
    converter_reader_start(READER_BASE, 500u);
    while (!signal_probe_is_full(PROBE_BASE)) {
    }
    converter_reader_stop(READER_BASE);
    signal_probe_read(PROBE_BASE, words, 32u);
    for (unsigned at = 0; at < 32u; at++) {
        exercise_hex(words[at]);
    }
    exercise_expect("nothing lost", converter_reader_take_lost(READER_BASE), 0u);
    uint32_t begin = exercise_cycles();
    while (exercise_cycles() - begin < 600u) {
    }
    uint32_t before = (uint32_t)converter_reader_latest(READER_BASE, 2u);
    exercise_hex(before);
    begin = exercise_cycles();
    while (exercise_cycles() - begin < 1200u) {
    }
    exercise_expect("stopped", (uint32_t)converter_reader_latest(READER_BASE, 2u), before);
    converter_reader_start(READER_BASE, 400u);
    begin = exercise_cycles();
    while (exercise_cycles() - begin < 350u) {
    }
    exercise_hex((uint32_t)converter_reader_latest(READER_BASE, 0u));
    exercise_hex((uint32_t)converter_reader_latest(READER_BASE, 1u));
    exercise_hex((uint32_t)converter_reader_latest(READER_BASE, 2u));
}
