/* Quiet, then a sudden shake in one channel, then quiet again: on, its channel and ratio, the interrupt, off. */
#include "drivers/dma.h"
#include "drivers/event_counter.h"
#include "drivers/fir_filter.h"
#include "drivers/threshold_trigger.h"

static int32_t from[60] __attribute__((aligned(16)));

static void rounds(unsigned count, int32_t first, int32_t second, int32_t third)
{
    for (unsigned at = 0; at < 20u; at++) {
        from[3u * at] = first;
        from[3u * at + 1u] = at % 2u == 0u ? second : -second;
        from[3u * at + 2u] = third;
    }
    (void)dma_take_sent(MOVER_BASE);
    dma_receive(MOVER_BASE, (uintptr_t)from, 12u * count, false);
    dma_send(MOVER_BASE, (uintptr_t)from, 12u * count, false);
    while (!dma_is_sent(MOVER_BASE)) {
    }
    /* Until the samples that wait have been looked at. */
    uint32_t begin = exercise_cycles();
    while (exercise_cycles() - begin < 3000u) {
    }
    exercise_hex(threshold_trigger_ratio(TRIGGER_BASE));
}

static void exercise(void)
{
    *fir_filter_register(FIR_BASE, 0u) = 0u;
    threshold_trigger_start(TRIGGER_BASE, 40u, 20u, true);
    rounds(15u, 10, 10, 0);
    exercise_expect("not yet", threshold_trigger_ratio(TRIGGER_BASE), 0u);
    rounds(6u, 10, 10, 0);
    exercise_expect("quiet", threshold_trigger_is_on(TRIGGER_BASE), 0u);
    rounds(3u, 10, -32768, 0);
    exercise_wait(TRIGGER_IRQ_PLIC_SOURCE);
    exercise_expect("on", threshold_trigger_is_on(TRIGGER_BASE), 1u);
    exercise_expect("channel", threshold_trigger_channel(TRIGGER_BASE), 1u);
    exercise_expect("went on", threshold_trigger_take(TRIGGER_BASE, 3u), threshold_trigger_on);
    exercise_done(TRIGGER_IRQ_PLIC_SOURCE);
    rounds(20u, 10, 10, 0);
    exercise_expect("off", threshold_trigger_is_on(TRIGGER_BASE), 0u);
    exercise_expect("went off", threshold_trigger_take(TRIGGER_BASE, 3u), threshold_trigger_off);
    exercise_expect("told both", event_counter_words(EVENTS_BASE), 2u);
    *threshold_trigger_register(TRIGGER_BASE, 0u) = 0u;
    rounds(1u, 10, 10, 0);
    exercise_expect("switched off", threshold_trigger_ratio(TRIGGER_BASE), 0u);
}
