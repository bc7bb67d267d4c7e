    .text
    .globl _start
_start:
    .incbin "contents.bin"
