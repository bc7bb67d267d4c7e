// Steps a block as it is asked to, word after word over standard input and output; all numbers are 32 bits, lowest byte first.
// What the block prints goes to standard error.
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

static void settle()
{
    top->clk = 0;
    top->eval();
}

static void edge()
{
    top->clk = 1;
    top->eval();
}

double sc_time_stamp() { return 0; }

int main()
{
    // Standard output is the block's own no longer.
    answers = dup(1);
    dup2(2, 1);
    top = new Vharness;
    top->rst = 1;
    for (int at = 0; at < 4; at++) { settle(); edge(); }
    top->rst = 0;
    settle();
    uint64_t outputs[OUTPUTS + 1];
    uint64_t now[OUTPUTS + 1];
    for (;;) {
        uint32_t answer[3] = {0, 0, 0};
        uint32_t what = word();
        if (what == 0) {
            uint32_t cycles = word();
            read_outputs(top, outputs);
            bool same = true;
            while (answer[0] < cycles && same && !Verilated::gotFinish()) {
                edge();
                settle();
                answer[0]++;
                read_outputs(top, now);
                for (int at = 0; at < OUTPUTS; at++) same = same && now[at] == outputs[at];
            }
        } else if (what == 1) {
            top->write = word() & 1;
            top->address = word();
            top->value = word();
            top->bytes = word() & 15;
            top->request = 1;
            settle();
            bool done = top->done;
            while (!done && answer[0] < LONGEST_ACCESS && !Verilated::gotFinish()) {
                edge();
                settle();
                answer[0]++;
                done = top->done;
            }
            answer[1] = top->answer;
            answer[2] = (done && top->error ? 1 : 0) | (done ? 0 : 2);
            edge();
            top->request = 0;
            settle();
            answer[0]++;
        } else if (what == 2) {
            set_input();
            settle();
        } else if (what == 4) {
            for (uint32_t count = word(); count > 0; count--) set_input();
            settle();
            edge();
            answer[0] = 1;
            for (uint32_t count = word(); count > 0; count--) write_input(top, word(), 0);
            settle();
        } else {
            top->request = 0;
            top->rst = 1;
            for (int at = 0; at < 4; at++) { settle(); edge(); }
            top->rst = 0;
            settle();
        }
        answer[2] |= Verilated::gotFinish() ? 4 : 0;
        read_outputs(top, now);
        give(answer, sizeof answer);
        give(now, OUTPUTS * sizeof(uint64_t));
    }
}
