// Steps a block as it is asked to, word after word over standard input and output; all numbers are 32 bits, lowest byte first.
// What the block prints goes to standard error. Cycles are those of its first clock; others go on beside it.
//
//   0 cycles                        run so many cycles, and stop behind the first in which an output has changed
//   1 write address value bytes     an access
//   2 input low high                set an input, 64 bits
//   3                               reset
//   4 count (input low high) ... count input ...
//                                   set inputs, run one cycle, and clear others
//
// Each is answered by: cycles that have passed, what was read, flags (1: error, 2: no answer, 4: the block has ended the
// simulation), and the outputs, 64 bits each.
#include "Vharness.h"
#include "verilated.h"
#include "ports.h"
#include <cstdint>
#include <cstdlib>
#include <unistd.h>

static const int LONGEST_ACCESS = 4096;
static Vharness *top;
static int answers;

static void take(void *to, size_t bytes)
{
    uint8_t *at = static_cast<uint8_t *>(to);
    while (bytes > 0) {
        ssize_t got = read(0, at, bytes);
        if (got <= 0) _exit(0);
        at += got;
        bytes -= static_cast<size_t>(got);
    }
}

static void give(const void *from, size_t bytes)
{
    const uint8_t *at = static_cast<const uint8_t *>(from);
    while (bytes > 0) {
        ssize_t put = write(answers, at, bytes);
        if (put <= 0) _exit(0);
        at += put;
        bytes -= static_cast<size_t>(put);
    }
}

static uint32_t word()
{
    uint32_t value;
    take(&value, sizeof value);
    return value;
}

static void set_input()
{
    uint32_t input = word();
    uint64_t value = word();
    value |= static_cast<uint64_t>(word()) << 32;
    write_input(top, input, value);
}

// When each clock changes next, in femtoseconds, and its level now.
static uint64_t changes[CLOCKS];
static bool levels[CLOCKS];
// Resets that end with the next falling edge of their clock.
static bool ends_reset[CLOCKS];
// Rising edges of the first clock.
static uint32_t cycles_done;

// Goes on until a clock has come to a level.
static void until(int clock, bool level)
{
    for (bool is_there = false; !is_there;) {
        uint64_t now = changes[0];
        for (int at = 1; at < CLOCKS; at++) if (changes[at] < now) now = changes[at];
        for (int at = 0; at < CLOCKS; at++) {
            if (changes[at] != now) continue;
            changes[at] += half_periods[at];
            levels[at] = !levels[at];
            write_clk(top, at, levels[at]);
            if (!levels[at] && ends_reset[at]) write_rst(top, at, 0);
            if (!levels[at]) ends_reset[at] = false;
            cycles_done += at == 0 && levels[at];
            is_there = is_there || (at == clock && levels[at] == level);
        }
        top->eval();
    }
}

static void cycle(int clock)
{
    until(clock, true);
    until(clock, false);
}

// Four cycles of each clock in reset; the first one goes on first.
static void reset()
{
    for (int at = 0; at < CLOCKS; at++) {
        ends_reset[at] = false;
        write_rst(top, at, 1);
    }
    for (int at = CLOCKS - 1; at >= 0; at--)
        for (int count = 0; count < 4; count++) cycle(at);
    write_rst(top, 0, 0);
    for (int at = 1; at < CLOCKS; at++) ends_reset[at] = true;
    top->eval();
}

double sc_time_stamp() { return 0; }

int main()
{
    // Standard output is the block's own no longer.
    answers = dup(1);
    dup2(2, 1);
    top = new Vharness;
    for (int at = 0; at < CLOCKS; at++) {
        changes[at] = half_periods[at];
        write_clk(top, at, 0);
    }
    top->eval();
    reset();
    uint64_t outputs[OUTPUTS + 1];
    uint64_t now[OUTPUTS + 1];
    for (;;) {
        uint32_t answer[3] = {0, 0, 0};
        uint32_t what = word();
        uint32_t begin = cycles_done;
        if (what == 0) {
            uint32_t cycles = word();
            read_outputs(top, outputs);
            bool same = true;
            while (cycles_done - begin < cycles && same && !Verilated::gotFinish()) {
                cycle(0);
                read_outputs(top, now);
                for (int at = 0; at < OUTPUTS; at++) same = same && now[at] == outputs[at];
            }
        } else if (what == 1) {
            top->write = word() & 1;
            top->address = word();
            top->value = word();
            top->bytes = word() & 15;
            top->request = 1;
            top->eval();
            bool done = top->done;
            for (int waits = 0; !done && waits < LONGEST_ACCESS && !Verilated::gotFinish(); waits++) {
                cycle(CLOCK_OF_ACCESSES);
                done = top->done;
            }
            answer[1] = top->answer;
            answer[2] = (done && top->error ? 1 : 0) | (done ? 0 : 2);
            until(CLOCK_OF_ACCESSES, true);
            top->request = 0;
            until(CLOCK_OF_ACCESSES, false);
        } else if (what == 2) {
            set_input();
            top->eval();
        } else if (what == 4) {
            for (uint32_t count = word(); count > 0; count--) set_input();
            top->eval();
            until(0, true);
            for (uint32_t count = word(); count > 0; count--) write_input(top, word(), 0);
            until(0, false);
        } else {
            top->request = 0;
            reset();
        }
        answer[0] = cycles_done - begin;
        answer[2] |= Verilated::gotFinish() ? 4 : 0;
        read_outputs(top, now);
        give(answer, sizeof answer);
        give(now, OUTPUTS * sizeof(uint64_t));
    }
}
