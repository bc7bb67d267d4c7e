/* Words that come are counted and cleared, and how many came in a gate time; none while it is off. */
#include "drivers/dma.h"
#include "drivers/event_counter.h"
#include "drivers/fir_filter.h"
#include "drivers/threshold_trigger.h"

static int32_t from[6] __attribute__((aligned(16)));

/* Each time the first sample is large the trigger goes on, and each time it is small off again: a word each. */
static void change(int32_t size)
{
    for (unsigned at = 0; at < 6u; at++) {
        from[at] = size;
    }
    (void)dma_take_sent(MOVER_BASE);
    dma_receive(MOVER_BASE, (uintptr_t)from, sizeof from, false);
    dma_send(MOVER_BASE, (uintptr_t)from, sizeof from, false);
    while (!dma_is_sent(MOVER_BASE)) {
    }
    uint32_t begin = exercise_cycles();
    while (exercise_cycles() - begin < 400u) {
    }
}

static void exercise(void)
{
    *fir_filter_register(FIR_BASE, 0u) = 0u;
    threshold_trigger_start(TRIGGER_BASE, 24u, 16u, false);
    for (unsigned at = 0; at < 10u; at++) {
        change(10);
    }
    exercise_expect("none", event_counter_words(EVENTS_BASE), 0u);
    change(3000);
    exercise_expect("one", event_counter_words(EVENTS_BASE), 1u);
    for (unsigned at = 0; at < 16u; at++) {
        change(1);
    }
    exercise_expect("two", event_counter_words(EVENTS_BASE), 2u);
    exercise_expect("no packets", event_counter_packets(EVENTS_BASE), 0u);
    event_counter_clear(EVENTS_BASE);
    exercise_expect("cleared", event_counter_words(EVENTS_BASE), 0u);
    exercise_expect("long ago", event_counter_rate(EVENTS_BASE), 0u);
    *event_counter_register(EVENTS_BASE, 0u) = 0u;
    change(32000);
    exercise_expect("off", event_counter_words(EVENTS_BASE), 0u);
}
