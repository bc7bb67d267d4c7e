// Words of VHDL (IEEE 1076-2008, 15) as far as declarations of entities and constants of packages need them.
lexer grammar VhdlLexer;

options { caseInsensitive = true; }

ENTITY: 'entity';
PACKAGE: 'package';
BODY: 'body';
IS: 'is';
END: 'end';
GENERIC: 'generic';
PORT: 'port';
CONSTANT: 'constant';
SIGNAL: 'signal';
IN: 'in';
OUT: 'out';
INOUT: 'inout';
BUFFER: 'buffer';
LINKAGE: 'linkage';
BUS: 'bus';
RANGE: 'range';
TO: 'to';
DOWNTO: 'downto';
ABS: 'abs';
NOT: 'not';
MULTIPLYING_WORD: 'mod' | 'rem';
LOGICAL: 'and' | 'or' | 'xor' | 'nand' | 'nor' | 'xnor';

IDENTIFIER: [a-z] [a-z0-9_]* | '\\' ~[\\\r\n]+ '\\';
// With a base between signs of number (15.5.3).
NUMBER: [0-9] [0-9_]* ('#' [0-9a-f_]+ '#' | '.' [0-9_]+)? ('e' [+-]? [0-9_]+)?;
STRING: [boxsud]* '"' ('""' | ~["\r\n])* '"';
CHARACTER: '\'' ~[\r\n] '\'';

OPEN: '(';
CLOSE: ')';
COMMA: ',';
SEMICOLON: ';';
ASSIGN: ':=';
COLON: ':';
DOT: '.';
POWER: '**';
TIMES: '*';
DIVIDE: '/';
PLUS: '+';
MINUS: '-';
ARROW: '=>';
RELATION: '=' | '/=' | '<' | '<=' | '>' | '>=';
TICK: '\'';

COMMENT: ('--' ~[\r\n]* | '/*' .*? '*/') -> channel(2);
SPACE: [ \t\r\n\f]+ -> channel(HIDDEN);
CONCATENATION: '&';
OTHER: .;
