// IEEE 1364-2005 clause 17.1.1: decimal, hexadecimal, octal, binary, character, string
module t;
  initial $display("%d|%h|%o|%b|%c|%s", 8'd65, 8'd65, 8'd65, 8'd65, 8'd65, 8'd65);
endmodule
//>  65|41|101|01000001|A|A
