/*
 * Reads a thermometer and sets its limit, as UM10204 has it: start, address, pointer, repeated start, bytes, stop. Then what
 * goes wrong: an address without a device, which gives the bus back; and the interrupt.
 */
#include "drivers/i2c_controller.h"

static uint32_t sensor(uint8_t pointer)
{
    uint8_t bytes[2] = {pointer, 0u};
    /* Without a stop between, so that the pointer and what it points to belong together. */
    *i2c_register(I2C_BASE, 12u) = 0x90u;
    exercise_expect("address", i2c_step(I2C_BASE, 1u | 2u), 1u);
    *i2c_register(I2C_BASE, 12u) = pointer;
    exercise_expect("pointer", i2c_step(I2C_BASE, 2u), 1u);
    exercise_expect("bus is ours", *i2c_register(I2C_BASE, 4u), 8u);
    exercise_expect("read", i2c_read(I2C_BASE, 0x48u, bytes, 2u), 1u);
    return (uint32_t)bytes[0] << 8 | bytes[1];
}

static void exercise(void)
{
    i2c_begin(I2C_BASE, 40u, 30u);
    exercise_expect("free", *i2c_register(I2C_BASE, 4u), 0u);
    for (unsigned at = 0; at < 3u; at++) {
        exercise_hex(sensor(0u));
    }
    exercise_expect("limit", sensor(1u), 0x5000u);
    static const uint8_t limit[3] = {1u, 0x12u, 0x34u};
    exercise_expect("set", i2c_write(I2C_BASE, 0x48u, limit, 3u), 1u);
    exercise_expect("limit", sensor(1u), 0x1234u);
    exercise_expect("nothing there", sensor(7u), 0u);

    uint32_t begin = exercise_cycles();
    exercise_expect("no device", i2c_write(I2C_BASE, 0x22u, limit, 3u), 0u);
    exercise_hex(exercise_cycles() - begin);
    exercise_expect("refused, and free", *i2c_register(I2C_BASE, 4u) & 0xFu, 0u);
    exercise_expect("no device to read", i2c_write(I2C_BASE, 0x22u, limit, 0u), 0u);
    exercise_expect("told until the next command", *i2c_register(I2C_BASE, 4u) & 0xFu, 2u);

    (void)i2c_take_done(I2C_BASE);
    i2c_interrupt(I2C_BASE, true);
    *i2c_register(I2C_BASE, 12u) = 0x90u;
    *i2c_register(I2C_BASE, 8u) = 1u | 2u | 16u;
    exercise_expect("busy", *i2c_register(I2C_BASE, 4u) & 1u, 1u);
    exercise_wait(I2C_IRQ_PLIC_SOURCE);
    exercise_expect("done", *i2c_register(I2C_BASE, 4u) & 7u, 0u);
    exercise_expect("event", i2c_take_done(I2C_BASE), 1u);
    exercise_done(I2C_IRQ_PLIC_SOURCE);
    i2c_interrupt(I2C_BASE, false);
    *i2c_register(I2C_BASE, 0u) = 0u;
    *i2c_register(I2C_BASE, 8u) = 1u;
    exercise_expect("switched off", *i2c_register(I2C_BASE, 4u), 0u);
}
