/*
 * Four outputs: never, a fifth, half and always high. A duty that is changed counts from the next period on; switched off, all are
 * low. What is outside measures after each word.
 */
#include "drivers/pwm.h"

static void measured(const char *word)
{
    exercise_say(word);
    exercise_drain();
    uint32_t begin = exercise_cycles();
    while (exercise_cycles() - begin < 3000u) {
    }
}

static void exercise(void)
{
    pwm_set(PWM_BASE, 0u, 0u);
    pwm_set(PWM_BASE, 1u, 10u);
    pwm_set(PWM_BASE, 2u, 25u);
    pwm_set(PWM_BASE, 3u, 50u);
    pwm_start(PWM_BASE, 50u, 1u);
    measured("measure\n");
    pwm_set(PWM_BASE, 1u, 40u);
    pwm_set(PWM_BASE, 3u, 1u);
    measured("measure\n");
    pwm_start(PWM_BASE, 25u, 3u);
    measured("measure\n");
    pwm_stop(PWM_BASE);
    measured("measure\n");
}
