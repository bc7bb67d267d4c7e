/* The coefficients that it starts with, others, the largest and smallest results, and samples as they are. */
#include "drivers/decimating_filter.h"
#include "drivers/dma.h"
#include "drivers/fir_filter.h"

static int32_t from[48] __attribute__((aligned(16)));
static int32_t to[48] __attribute__((aligned(16)));

static void filtered(unsigned samples)
{
    dma_receive(COLLECTOR_BASE, (uintptr_t)to, 4u * samples, false);
    (void)dma_take_sent(MOVER_BASE);
    dma_receive(MOVER_BASE, (uintptr_t)from, 4u * samples, false);
    dma_send(MOVER_BASE, (uintptr_t)from, 4u * samples, false);
    while (!dma_is_received(COLLECTOR_BASE)) {
    }
    for (unsigned at = 0; at < samples; at++) {
        exercise_hex((uint32_t)to[at]);
    }
}

static void exercise(void)
{
    exercise_expect("coefficient 1", *fir_filter_register(FIR_BASE, 2052u), 16384u);
    /* An impulse in each channel: the coefficients come out. */
    from[0] = 16384;
    from[4] = -16384;
    from[2] = 1;
    filtered(18u);
    exercise_expect("not clipped", fir_filter_take_clipped(FIR_BASE), 0u);

    static const int32_t most[5] = {32767, 32767, 32767, -32768, 1};
    fir_filter_load(FIR_BASE, most, 5u);
    for (unsigned at = 0; at < 48u; at++) {
        from[at] = at % 3u == 0u ? 32767 : at % 3u == 1u ? -32768 : (int32_t)(at * 5u);
    }
    filtered(48u);
    exercise_expect("clipped", fir_filter_take_clipped(FIR_BASE), 1u);
    exercise_expect("told", fir_filter_take_clipped(FIR_BASE), 0u);

    fir_filter_bypass(FIR_BASE, true);
    filtered(7u);
    for (unsigned at = 0; at < 7u; at++) {
        exercise_expect("as it is", (uint32_t)to[at], (uint32_t)from[at]);
    }
}
