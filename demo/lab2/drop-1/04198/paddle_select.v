// my own gates first
primitive nor3 (output o, input a, b, c);
  table
    0 0 0 : 1;
    1 ? ? : 0;
    ? 1 ? : 0;
    ? ? 1 : 0;
  endtable
endprimitive

module paddle_select (input raise, level_hi, gate_shut, boat_in, output upper, lower);
  wire g, r, l, k;
  nor3 u1 (g, gate_shut, 1'b0, 1'b0), u2 (r, raise, 1'b0, 1'b0), u3 (l, level_hi, 1'b0, 1'b0);
  nor3 u4 (upper, g, r, level_hi);
  nor3 u5 (k, l, boat_in, raise);
  and  u6 (lower, k, gate_shut);
endmodule
