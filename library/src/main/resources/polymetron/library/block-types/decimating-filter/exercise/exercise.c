/*
 * What goes in at a rate of eight comes out at one: the answer to a step, to the largest and the smallest sample, at another rate, and
 * from the beginning after it was switched off.
 */
#include "drivers/decimating_filter.h"
#include "drivers/dma.h"
#include "drivers/fir_filter.h"
#include "drivers/ring_writer.h"

static int32_t from[96] __attribute__((aligned(16)));
static int32_t buffer[48] __attribute__((aligned(64)));

static void results(unsigned samples, unsigned words)
{
    ring_writer_stop(RECORDER_BASE);
    ring_writer_start(RECORDER_BASE, (uintptr_t)buffer, sizeof buffer, 0u);
    (void)dma_take_sent(MOVER_BASE);
    /* The splitter goes on when all have a word: the packet comes back to where it was. */
    dma_receive(MOVER_BASE, (uintptr_t)from, 4u * samples, false);
    dma_send(MOVER_BASE, (uintptr_t)from, 4u * samples, false);
    while (ring_writer_written(RECORDER_BASE) != 4u * words) {
    }
    for (unsigned at = 0; at < words; at++) {
        exercise_hex((uint32_t)buffer[at]);
    }
}

static void exercise(void)
{
    *fir_filter_register(FIR_BASE, 0u) = 0u;
    for (unsigned at = 0; at < 96u; at++) {
        from[at] = at % 3u == 0u ? 32767 : at % 3u == 1u ? -32768 : 1000;
    }
    exercise_expect("rate", *decimating_filter_register(DECIMATE_BASE, 4u), 8u);
    results(96u, 12u);
    /* After as many results as it has stages a step is there in full. */
    exercise_expect("largest", (uint32_t)buffer[9], 32767u);
    exercise_expect("smallest", (uint32_t)buffer[10], (uint32_t)-32768);
    exercise_expect("some", (uint32_t)buffer[11], 1000u);
    decimating_filter_enable(DECIMATE_BASE, false);
    decimating_filter_enable(DECIMATE_BASE, true);
    decimating_filter_set_rate(DECIMATE_BASE, 3u);
    results(45u, 15u);
}
