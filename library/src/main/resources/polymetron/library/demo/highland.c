/*
 * Firmware of the large demo station, which does what it was built for without the processor touching a sample on its way:
 * the reader digitises three geophones, the filter lowers their rate, the splitter gives each round of channels to the trigger and
 * to the mover, which follows a ring of descriptors in the external memory. When the trigger goes on, a second from before, the event
 * and a second from behind it are written to the flash with the time of the satellite receiver; the console reads them back.
 */
#include <stddef.h>
#include <stdint.h>

#include PLATFORM_HEADER
#include "drivers/analog_monitor.h"
#include "drivers/converter_reader.h"
#include "drivers/dma.h"
#include "drivers/flash_controller.h"
#include "drivers/gpio.h"
#include "drivers/i2c_controller.h"
#include "drivers/interrupt_controller.h"
#include "drivers/machine_timer.h"
#include "drivers/pps_timestamp.h"
#include "drivers/threshold_trigger.h"
#include "drivers/uart.h"

#define STEPS_PER_SECOND 50u
#define STEP_TICKS (TIMER_TICK_HZ / STEPS_PER_SECOND)
#define LINE_LENGTH 40u
#define TYPED_SIZE 64u /* a power of two */

#define CHANNELS 3u
#define RING 256u
#define HISTORY 1024u /* rounds that are kept, a power of two */
#define ROUNDS_PER_SECOND 125u
#define LONGEST (5u * ROUNDS_PER_SECOND)
#define RECORD_MAGIC 0x544E5645u
#define RECORDS_AT 0x1000000u /* the upper half of the flash */
#define RECORD_SIZE 16384u
#define SECTOR_SIZE 4096u
#define MOST_RECORDS 64u
#define SENSOR 0x48u

#define CAUSE_INTERRUPT 0x80000000u
#define CAUSE_TIMER 7u
#define CAUSE_EXTERNAL 11u

void trap_handler(uint32_t cause, uint32_t pc, uint32_t value);
int main(void);

/* As the mover reads and writes it. */
struct descriptor {
    uint32_t next;
    uint32_t buffer;
    uint32_t length;
    volatile uint32_t told;
};

struct record {
    uint32_t magic;
    uint32_t number;
    uint32_t seconds;
    uint32_t cycles;
    uint32_t channel;
    uint32_t ratio;
    uint32_t rounds;
    uint32_t largest;
};

static struct descriptor ring[RING] __attribute__((section(".noinit.memory.records"), aligned(16)));
static int32_t arrived[RING][4] __attribute__((section(".noinit.memory.records"), aligned(16)));
static int32_t history[HISTORY][CHANNELS] __attribute__((section(".noinit.memory.records"), aligned(16)));

static uint32_t head;
static uint32_t rounds;
static uint32_t envelope;
static volatile uint32_t steps;
static volatile uint32_t trigger_events;
static volatile uint32_t battery_events;
static volatile char typed[TYPED_SIZE];
static volatile uint32_t typed_in;
static volatile uint32_t typed_out;
static volatile uint32_t message_second;
static char line[LINE_LENGTH];
static uint32_t line_length;

static uint32_t is_recording;
static uint32_t is_ending;
static uint32_t begin_round;
static uint32_t end_round;
static struct record event;
static uint32_t records;

static void print(const char *text)
{
    while (*text != '\0') {
        if (*text == '\n') {
            uart_send(CONSOLE_BASE, '\r');
        }
        uart_send(CONSOLE_BASE, *text);
        text++;
    }
}

static void print_padded(uint32_t number, unsigned digits)
{
    char text[11];
    size_t at = sizeof text;
    text[--at] = '\0';
    do {
        text[--at] = (char)('0' + number % 10u);
        number /= 10u;
    } while ((number != 0u || sizeof text - 1u - at < digits) && at > 0u);
    print(&text[at]);
}

static void print_number(int32_t number)
{
    if (number < 0) {
        uart_send(CONSOLE_BASE, '-');
    }
    print_padded(number < 0 ? 0u - (uint32_t)number : (uint32_t)number, 1u);
}

static void print_hex(uint32_t number)
{
    print("0x");
    for (int shift = 28; shift >= 0; shift -= 4) {
        uart_send(CONSOLE_BASE, "0123456789ABCDEF"[(number >> shift) & 15u]);
    }
}

/* Seconds and microseconds of a time stamp. */
static void print_time(uint32_t seconds, uint32_t cycles)
{
    uint32_t micros = cycles / (PPS_NOMINAL_CYCLES / 1000000u);
    print_padded(seconds, 1u);
    print(".");
    print_padded(micros < 1000000u ? micros : 999999u, 6u);
}

static uint32_t bar(uint32_t size)
{
    uint32_t lamps = 0u;
    uint32_t threshold = 2048u;
    while (lamps != 0xFFFFu && size >= threshold) {
        lamps = (lamps << 1) | 1u;
        threshold *= 2u;
    }
    return lamps;
}

/* --- samples */

static void begin_ring(void)
{
    for (uint32_t at = 0u; at < RING; at++) {
        ring[at].next = (uint32_t)(uintptr_t)&ring[(at + 1u) % RING];
        ring[at].buffer = (uint32_t)(uintptr_t)arrived[at];
        ring[at].length = sizeof arrived[at];
        ring[at].told = 0u;
    }
    dma_order();
    *dma_register(GROUND_RECORDER_BASE, 64u) = 8u;
    *dma_register(GROUND_RECORDER_BASE, 68u) = 3u;
    *dma_register(GROUND_RECORDER_BASE, 88u) = (uint32_t)(uintptr_t)&ring[0];
    *dma_register(GROUND_RECORDER_BASE, 96u) = (uint32_t)(uintptr_t)&ring[RING - 1u];
    /* Runs, along the ring, and interrupts. */
    *dma_register(GROUND_RECORDER_BASE, 64u) = 7u;
}

static uint32_t size_of(int32_t sample)
{
    return sample < 0 ? 0u - (uint32_t)sample : (uint32_t)sample;
}

static void take_round(const int32_t *samples)
{
    uint32_t largest = 0u;
    for (uint32_t channel = 0u; channel < CHANNELS; channel++) {
        uint32_t size = size_of(samples[channel]);
        history[rounds % HISTORY][channel] = samples[channel];
        largest = size > largest ? size : largest;
    }
    rounds++;
    envelope -= envelope / 8u;
    envelope = largest > envelope ? largest : envelope;
    gpio_write(LAMPS_BASE, bar(envelope * (1u + gpio_read(GAIN_BASE))));
}

static void take_arrived(void)
{
    while (ring[head].told != 0u) {
        dma_order();
        take_round(arrived[head]);
        ring[head].told = 0u;
        dma_order();
        /* One stays between: where both meet the ring is empty, not full. */
        *dma_register(GROUND_RECORDER_BASE, 96u) = (uint32_t)(uintptr_t)&ring[head];
        head = (head + 1u) % RING;
    }
}

/* --- records in the flash */

static uintptr_t record_address(uint32_t number)
{
    return FLASH_MEMORY_BASE + RECORDS_AT + (uintptr_t)(number % MOST_RECORDS) * RECORD_SIZE;
}

static const volatile struct record *record_at(uint32_t number)
{
    return (const volatile struct record *)record_address(number);
}

static void count_records(void)
{
    records = 0u;
    while (records < MOST_RECORDS && record_at(records)->magic == RECORD_MAGIC) {
        records++;
    }
}

static void store_record(void)
{
    uint32_t at = RECORDS_AT + records % MOST_RECORDS * RECORD_SIZE;
    uint32_t place;
    event.magic = RECORD_MAGIC;
    event.number = records;
    event.rounds = end_round - begin_round;
    event.largest = 0u;
    for (place = begin_round; place != end_round; place++) {
        for (uint32_t channel = 0u; channel < CHANNELS; channel++) {
            uint32_t size = size_of(history[place % HISTORY][channel]);
            event.largest = size > event.largest ? size : event.largest;
        }
    }
    for (uint32_t sector = 0u; sector < RECORD_SIZE; sector += SECTOR_SIZE) {
        flash_controller_erase(FLASH_REGISTERS_BASE, at + sector);
    }
    for (place = begin_round; place != end_round; place++) {
        flash_controller_write(
            FLASH_REGISTERS_BASE, at + (uint32_t)sizeof event + (place - begin_round) * (uint32_t)sizeof history[0],
            (const uint8_t *)history[place % HISTORY], sizeof history[0]);
    }
    /* The head is written last: what is not complete is no record. */
    flash_controller_write(FLASH_REGISTERS_BASE, at, (const uint8_t *)&event, sizeof event);
    records++;
}

static void print_record(uint32_t number)
{
    const volatile struct record *head_of = record_at(number);
    print("record ");
    print_padded(number, 1u);
    print(": at ");
    print_time(head_of->seconds, head_of->cycles);
    print(", channel ");
    print_padded(head_of->channel, 1u);
    print(", ");
    print_padded(head_of->rounds, 1u);
    print(" samples, largest ");
    print_padded(head_of->largest, 1u);
    print("\n");
}

static void notice_trigger(void)
{
    uint32_t events = trigger_events;
    trigger_events = 0u;
    if ((events & threshold_trigger_on) != 0u && is_recording == 0u) {
        is_recording = 1u;
        is_ending = 0u;
        begin_round = rounds > ROUNDS_PER_SECOND ? rounds - ROUNDS_PER_SECOND : 0u;
        end_round = begin_round + LONGEST;
        event.channel = threshold_trigger_channel(GROUND_TRIGGER_BASE);
        event.ratio = threshold_trigger_ratio(GROUND_TRIGGER_BASE);
        print("\nevent on channel ");
        print_padded(event.channel, 1u);
        print(" at ");
        print_time(event.seconds, event.cycles);
        print("\n> ");
    }
    if ((events & threshold_trigger_off) != 0u && is_recording != 0u && is_ending == 0u) {
        is_ending = 1u;
        end_round = rounds + ROUNDS_PER_SECOND < end_round ? rounds + ROUNDS_PER_SECOND : end_round;
    }
    if (is_recording != 0u && (int32_t)(rounds - end_round) >= 0) {
        is_recording = 0u;
        store_record();
        print("\n");
        print_record(records - 1u);
        print("> ");
    }
}

/* --- battery, temperature, time */

static const uint32_t battery_millivolts[4] = {
    BATTERY_THRESHOLD0_MICROVOLTS / 1000u, BATTERY_THRESHOLD1_MICROVOLTS / 1000u,
    BATTERY_THRESHOLD2_MICROVOLTS / 1000u, BATTERY_THRESHOLD3_MICROVOLTS / 1000u};

static void print_volts(uint32_t millivolts)
{
    print_padded(millivolts / 1000u, 1u);
    print(".");
    print_padded(millivolts % 1000u / 10u, 2u);
    print(" V");
}

static void notice_battery(void)
{
    uint32_t changed = battery_events;
    uint32_t flags = analog_monitor_flags(BATTERY_BASE);
    battery_events = 0u;
    /* Rising, the lowest threshold is passed first, falling the highest. */
    for (uint32_t at = 0u; at < 8u; at++) {
        uint32_t flag = at < 4u ? at : 7u - at;
        if ((changed >> flag & 1u) != 0u && (flags >> flag & 1u) == (at < 4u ? 1u : 0u)) {
            print(at < 4u ? "\nbattery above " : "\nbattery below ");
            print_volts(battery_millivolts[flag]);
            print("\n> ");
        }
    }
}

static void battery(void)
{
    print("battery ");
    print_volts(analog_monitor_millivolts(BATTERY_BASE, 0u, BATTERY_FULL_SCALE_MICROVOLTS / 1000u));
    print("\n");
}

static void temperature(void)
{
    static const uint8_t pointer = 0u;
    uint8_t bytes[2];
    if (!i2c_write(THERMOMETER_BASE, SENSOR, &pointer, 1u) || !i2c_read(THERMOMETER_BASE, SENSOR, bytes, 2u)) {
        print("no sensor\n");
        return;
    }
    int32_t steps_of_256 = (int16_t)((uint16_t)bytes[0] << 8 | bytes[1]);
    print_number(steps_of_256 / 256);
    print(".");
    print_padded((uint32_t)(steps_of_256 < 0 ? -steps_of_256 : steps_of_256) % 256u * 10u / 256u, 1u);
    print(" C\n");
}

/* "SECOND n": the number of the second that the last pulse began. */
static void take_message(char character)
{
    static uint32_t number;
    static uint32_t is_number;
    if (character >= '0' && character <= '9') {
        number = number * 10u + (uint32_t)(character - '0');
        is_number = 1u;
    } else {
        if (character == '\r' && is_number != 0u && number != message_second) {
            if (number != message_second + 1u) {
                pps_timestamp_set(PPS_BASE, number);
            }
            message_second = number;
        }
        number = 0u;
        is_number = 0u;
    }
}

static void now(void)
{
    uint32_t cycles;
    uint32_t seconds = pps_timestamp_now(PPS_BASE, &cycles);
    print(message_second == 0u ? "no receiver yet, " : "time ");
    print_time(seconds, cycles);
    print(", a second is ");
    print_padded(pps_timestamp_length(PPS_BASE), 1u);
    print(" cycles\n");
}

/* --- interrupts and commands */

static void external_interrupt(void)
{
    uint32_t source = interrupt_controller_claim(INTERRUPTS_BASE);
    switch (source) {
    case CONSOLE_IRQ_PLIC_SOURCE:
        while (uart_has_received(CONSOLE_BASE)) {
            char character = uart_receive(CONSOLE_BASE);
            if (typed_in - typed_out < TYPED_SIZE) {
                typed[typed_in % TYPED_SIZE] = character;
                typed_in++;
            }
        }
        break;
    case RECEIVER_IRQ_PLIC_SOURCE:
        while (uart_has_received(RECEIVER_BASE)) {
            take_message(uart_receive(RECEIVER_BASE));
        }
        break;
    case GROUND_RECORDER_RECEIVED_PLIC_SOURCE:
        (void)dma_take_received(GROUND_RECORDER_BASE);
        break;
    case GROUND_TRIGGER_IRQ_PLIC_SOURCE: {
        uint32_t events = threshold_trigger_take(GROUND_TRIGGER_BASE, 3u);
        if ((events & threshold_trigger_on) != 0u && is_recording == 0u) {
            event.seconds = pps_timestamp_now(PPS_BASE, &event.cycles);
        }
        trigger_events |= events;
        break;
    }
    case BATTERY_IRQ_PLIC_SOURCE:
        battery_events |= analog_monitor_take_changed(BATTERY_BASE, 15u);
        break;
    default:
        break;
    }
    if (source != 0u) {
        interrupt_controller_complete(INTERRUPTS_BASE, source);
    }
}

void trap_handler(uint32_t cause, uint32_t pc, uint32_t value)
{
    static uint64_t next;
    if (cause == (CAUSE_INTERRUPT | CAUSE_TIMER)) {
        next = next == 0u ? machine_timer_now(TIMER_BASE) + STEP_TICKS : next + STEP_TICKS;
        machine_timer_set(TIMER_BASE, next);
        /* Going off raises no interrupt: it is looked for. */
        trigger_events |= threshold_trigger_take(GROUND_TRIGGER_BASE, threshold_trigger_off);
        steps++;
    } else if (cause == (CAUSE_INTERRUPT | CAUSE_EXTERNAL)) {
        external_interrupt();
    } else {
        print("\ntrap ");
        print_number((int32_t)cause);
        print(" at ");
        print_hex(pc);
        print(", value ");
        print_hex(value);
        print("\n");
        for (;;) {
        }
    }
}

static int is(const char *word)
{
    size_t at = 0u;
    while (word[at] != '\0' && word[at] == line[at]) {
        at++;
    }
    return word[at] == line[at];
}

/* The number behind a word and a blank; -1 where there is none. */
static int32_t number_after(const char *word)
{
    size_t at = 0u;
    int32_t number = 0;
    while (word[at] != '\0' && word[at] == line[at]) {
        at++;
    }
    if (word[at] != '\0' || line[at] != ' ' || line[at + 1u] == '\0') {
        return -1;
    }
    for (at++; line[at] >= '0' && line[at] <= '9' && number < 1000; at++) {
        number = number * 10 + (line[at] - '0');
    }
    return line[at] == '\0' ? number : -1;
}

static void status(void)
{
    print("samples ");
    print_padded(rounds, 1u);
    print(", size ");
    print_padded(envelope, 1u);
    print(", ratio ");
    print_padded(threshold_trigger_ratio(GROUND_TRIGGER_BASE), 1u);
    print("/16, records ");
    print_padded(records, 1u);
    print(", up ");
    print_padded(steps / STEPS_PER_SECOND, 1u);
    print(" s\n");
}

static void show(uint32_t number)
{
    const volatile int32_t *samples =
        (const volatile int32_t *)(record_address(number) + sizeof(struct record));
    uint32_t count = record_at(number)->rounds;
    print_record(number);
    for (uint32_t round = 0u; round < count && round < LONGEST; round += 25u) {
        for (uint32_t channel = 0u; channel < CHANNELS; channel++) {
            print_number(samples[CHANNELS * round + channel]);
            print(channel + 1u < CHANNELS ? " " : "\n");
        }
    }
}

static void answer(void)
{
    if (is("help")) {
        print("status    samples, trigger, records\n");
        print("records   what is in the flash\n");
        print("show N    every 25th sample of record N\n");
        print("time      of the receiver\n");
        print("temp      temperature\n");
        print("battery   voltage\n");
        print("id        platform and fingerprint\n");
    } else if (is("status")) {
        status();
    } else if (is("records")) {
        for (uint32_t number = 0u; number < records && number < MOST_RECORDS; number++) {
            print_record(number);
        }
        if (records == 0u) {
            print("none\n");
        }
    } else if (number_after("show") >= 0) {
        if ((uint32_t)number_after("show") < records) {
            show((uint32_t)number_after("show"));
        } else {
            print("no such record\n");
        }
    } else if (is("time")) {
        now();
    } else if (is("temp")) {
        temperature();
    } else if (is("battery")) {
        battery();
    } else if (is("id")) {
        print(PLATFORM_NAME " " PLATFORM_FINGERPRINT "\n");
    } else {
        print("? say help\n");
    }
}

static void take_character(char character)
{
    if (character == '\r' || character == '\n') {
        print("\n");
        line[line_length] = '\0';
        if (line_length > 0u) {
            answer();
        }
        line_length = 0u;
        print("> ");
    } else if ((character == '\b' || character == 0x7F) && line_length > 0u) {
        line_length--;
        print("\b \b");
    } else if (character >= ' ' && character < 0x7F && line_length < LINE_LENGTH - 1u) {
        line[line_length++] = character;
        uart_send(CONSOLE_BASE, character);
    }
}

static void listen(uint32_t source)
{
    interrupt_controller_enable(INTERRUPTS_BASE, source, 1u);
}

int main(void)
{
    uart_set_divisor(CONSOLE_BASE, CONSOLE_DIVISOR);
    uart_set_divisor(RECEIVER_BASE, RECEIVER_DIVISOR);
    print("\n" PLATFORM_NAME "\nplatform " PLATFORM_FINGERPRINT "\n");
    print("flash ");
    print_hex(flash_controller_identity(FLASH_REGISTERS_BASE));
    count_records();
    print(", records ");
    print_padded(records, 1u);
    print("\nsay help\n> ");

    uart_interrupt_on_receive(CONSOLE_BASE, 1);
    uart_interrupt_on_receive(RECEIVER_BASE, 1);
    i2c_begin(THERMOMETER_BASE, THERMOMETER_LOW_CYCLES, THERMOMETER_HIGH_CYCLES);
    analog_monitor_interrupt(BATTERY_BASE, true);
    begin_ring();
    threshold_trigger_start(GROUND_TRIGGER_BASE, 64u, 24u, true);
    converter_reader_start(GROUND_READER_BASE, GROUND_READER_PERIOD_CYCLES);
    listen(CONSOLE_IRQ_PLIC_SOURCE);
    listen(RECEIVER_IRQ_PLIC_SOURCE);
    listen(GROUND_RECORDER_RECEIVED_PLIC_SOURCE);
    listen(GROUND_TRIGGER_IRQ_PLIC_SOURCE);
    listen(BATTERY_IRQ_PLIC_SOURCE);
    interrupt_controller_threshold(INTERRUPTS_BASE, 0u);
    machine_timer_set(TIMER_BASE, machine_timer_now(TIMER_BASE) + STEP_TICKS);

    __asm__ volatile("csrw mie, %0" : : "r"((1u << CAUSE_TIMER) | (1u << CAUSE_EXTERNAL)));
    __asm__ volatile("csrsi mstatus, 8");
    for (;;) {
        __asm__ volatile("wfi");
        take_arrived();
        notice_trigger();
        if (battery_events != 0u) {
            notice_battery();
        }
        while (typed_out != typed_in) {
            char character = typed[typed_out % TYPED_SIZE];
            typed_out++;
            take_character(character);
        }
    }
}
