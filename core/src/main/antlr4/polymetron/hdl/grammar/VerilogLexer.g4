// Words of Verilog and SystemVerilog (IEEE 1800-2017, 5) as far as declarations of modules need them. Directives are gone before.
lexer grammar VerilogLexer;

MODULE: 'module' | 'macromodule';
ENDMODULE: 'endmodule';
PACKAGE: 'package';
ENDPACKAGE: 'endpackage';
FUNCTION: 'function';
ENDFUNCTION: 'endfunction';
TASK: 'task';
ENDTASK: 'endtask';
INTERFACE: 'interface';
ENDINTERFACE: 'endinterface';
PROGRAM: 'program';
ENDPROGRAM: 'endprogram';
CLASS: 'class';
ENDCLASS: 'endclass';
PRIMITIVE: 'primitive';
ENDPRIMITIVE: 'endprimitive';
IMPORT: 'import';
PARAMETER: 'parameter';
LOCALPARAM: 'localparam';
INPUT: 'input';
OUTPUT: 'output';
INOUT: 'inout';
REF: 'ref';
NET: 'wire' | 'tri' | 'tri0' | 'tri1' | 'wand' | 'wor' | 'triand' | 'trior' | 'supply0' | 'supply1' | 'uwire' | 'trireg';
VARIABLE: 'reg' | 'logic' | 'bit';
ATOM: 'integer' | 'int' | 'shortint' | 'longint' | 'byte' | 'time' | 'genvar';
REAL: 'real' | 'realtime' | 'shortreal' | 'string' | 'event' | 'chandle';
COMPOUND: 'struct' | 'union' | 'enum';
TYPE: 'type';
VAR: 'var';
SIGNING: 'signed' | 'unsigned';
LIFETIME: 'automatic' | 'static';

IDENTIFIER: [A-Za-z_] [A-Za-z0-9_$]* | '\\' ~[ \t\r\n]+;
SYSTEM: '$' [A-Za-z0-9_$]*;
// A size, a base and digits are one number (5.7.1).
NUMBER: ([0-9] [0-9_]* [ \t]*)? '\'' [sS]? [bBoOdDhH] [ \t]* [0-9a-fA-FxXzZ?_]+
      | '\'' [01xXzZ]
      | [0-9] [0-9_]* ('.' [0-9_]+)? ([eE] [+-]? [0-9_]+)?;
STRING: '"' ('\\' . | ~["\\\r\n])* '"';
ATTRIBUTE: '(*' ' '* ~[)] .*? '*)' -> channel(HIDDEN);

SCOPE: '::';
OPEN: '(';
CLOSE: ')';
LEFT: '[';
RIGHT: ']';
LBRACE: '{';
RBRACE: '}';
COMMA: ',';
SEMICOLON: ';';
COLON: ':';
HASH: '#';
DOT: '.';
EQUALS: '=';
OPERATOR: '**' | '<<<' | '>>>' | '<<' | '>>' | '===' | '!==' | '==?' | '!=?' | '==' | '!=' | '<=' | '>=' | '&&' | '||' | '+:' | '-:'
        | [+\-*/%<>!&|^~?@];

COMMENT: ('//' ~[\r\n]* | '/*' .*? '*/') -> channel(2);
SPACE: [ \t\r\n\f]+ -> channel(HIDDEN);
OTHER: .;
