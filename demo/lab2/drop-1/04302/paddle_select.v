module paddle_select (input raise, level_hi, gate_shut, boat_in, output upper, lower);
  wire g, r, l, x;
  nor n1 (g, gate_shut);
  nor n2 (r, raise);
  nor n3 (l, level_hi);
  nor n4 (x, g, r, level_hi);
  nor n5 (upper, x);            // one NOR too many
  nor n6 (lower, g, raise, l, boat_in);
endmodule
