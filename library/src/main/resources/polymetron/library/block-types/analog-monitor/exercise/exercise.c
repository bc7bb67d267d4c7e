/*
 * A voltage rises to the full scale and falls again: four flags go on one after the other and out in the opposite order, each by the
 * hysteresis later. Then thresholds of software.
 */
#include "drivers/analog_monitor.h"

static void exercise(void)
{
    exercise_expect("threshold", *analog_monitor_register(ANALOG_BASE, 16u), 1241u);
    exercise_expect("flags", analog_monitor_flags(ANALOG_BASE), 0u);
    analog_monitor_interrupt(ANALOG_BASE, true);
    for (unsigned at = 0; at < 8u; at++) {
        exercise_wait(ANALOG_IRQ_PLIC_SOURCE);
        uint32_t changed = analog_monitor_take_changed(ANALOG_BASE, 15u);
        uint32_t flags = analog_monitor_flags(ANALOG_BASE);
        exercise_hex(changed << 24 | flags << 16 | analog_monitor_steps(ANALOG_BASE, 0u));
        exercise_done(ANALOG_IRQ_PLIC_SOURCE);
    }
    exercise_expect("nothing more", analog_monitor_take_changed(ANALOG_BASE, 15u), 0u);
    analog_monitor_interrupt(ANALOG_BASE, false);
    uint32_t steps = analog_monitor_steps(ANALOG_BASE, 0u);
    exercise_expect("millivolts", analog_monitor_millivolts(ANALOG_BASE, 0u, 3300u), steps * 3300u / 4096u);
    analog_monitor_set_threshold(ANALOG_BASE, 2u, steps - 1u);
    while (analog_monitor_take_changed(ANALOG_BASE, 15u) != 4u) {
    }
    exercise_expect("above", analog_monitor_flags(ANALOG_BASE), 4u);
    analog_monitor_set_hysteresis(ANALOG_BASE, 10u);
    analog_monitor_set_threshold(ANALOG_BASE, 2u, steps + 11u);
    while (analog_monitor_take_changed(ANALOG_BASE, 15u) != 4u) {
    }
    exercise_expect("below", analog_monitor_flags(ANALOG_BASE), 0u);
}
