/*
 * Samples from memory through the decimating filter into a buffer, round and round: marks, the end of the buffer, its rounds, once
 * only, and a buffer where no memory is.
 */
#include "drivers/decimating_filter.h"
#include "drivers/dma.h"
#include "drivers/fir_filter.h"
#include "drivers/ring_writer.h"

static int32_t from[48] __attribute__((aligned(16)));
static uint32_t buffer[20] __attribute__((aligned(64)));

/* Two results of each of three channels from 48 samples at rate 8, when all samples of a channel are the same. */
static void send(void)
{
    (void)dma_take_sent(MOVER_BASE);
    /* The splitter goes on when all have a word: the packet comes back to where it was. */
    dma_receive(MOVER_BASE, (uintptr_t)from, sizeof from, false);
    dma_send(MOVER_BASE, (uintptr_t)from, sizeof from, false);
    while (!dma_is_sent(MOVER_BASE) || !dma_is_received(MOVER_BASE)) {
    }
}

static void exercise(void)
{
    *fir_filter_register(FIR_BASE, 0u) = 0u;
    for (unsigned at = 0; at < 48u; at++) {
        from[at] = (int32_t)(100u * (at % 3u + 1u));
    }
    decimating_filter_set_rate(DECIMATE_BASE, 2u);
    for (unsigned at = 0; at < 20u; at++) {
        buffer[at] = 0xEEEEEEEEu;
    }
    exercise_expect("stopped", ring_writer_written(RECORDER_BASE), 0u);
    exercise_expect("starts", ring_writer_start(RECORDER_BASE, (uintptr_t)buffer, 64u, 40u), 1u);
    /* 24 words: 96 bytes, which are one round and a half. */
    send();
    while (ring_writer_rounds(RECORDER_BASE) == 0u || ring_writer_written(RECORDER_BASE) != 32u) {
    }
    exercise_expect("round", ring_writer_take(RECORDER_BASE, ring_writer_round), ring_writer_round);
    exercise_expect("mark", ring_writer_take(RECORDER_BASE, ring_writer_mark), ring_writer_mark);
    exercise_expect("nothing lost", ring_writer_take(RECORDER_BASE, 15u), 0u);
    exercise_expect("behind the buffer", buffer[16], 0xEEEEEEEEu);
    for (unsigned at = 0; at < 16u; at++) {
        exercise_hex(buffer[at]);
    }

    ring_writer_stop(RECORDER_BASE);
    ring_writer_start(RECORDER_BASE, (uintptr_t)buffer, 64u, 16u);
    *ring_writer_register(RECORDER_BASE, 0u) = 7u;
    send();
    exercise_wait(RECORDER_MARK_PLIC_SOURCE);
    exercise_expect("marked", ring_writer_take(RECORDER_BASE, ring_writer_mark), ring_writer_mark);
    exercise_done(RECORDER_MARK_PLIC_SOURCE);
    while ((*ring_writer_register(RECORDER_BASE, 0u) & 1u) != 0u) {
    }
    exercise_expect("once", ring_writer_written(RECORDER_BASE), 0u);
    exercise_expect("rounds", ring_writer_rounds(RECORDER_BASE), 2u);

    ring_writer_start(RECORDER_BASE, 0x70000000u, 64u, 0u);
    send();
    exercise_expect("nowhere", ring_writer_take(RECORDER_BASE, ring_writer_error), ring_writer_error);
    ring_writer_stop(RECORDER_BASE);
}
