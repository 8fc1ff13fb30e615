module paddle_select (upper, lower, raise, level_hi, gate_shut, boat_in);
  output upper, lower;
  input  raise, level_hi, gate_shut, boat_in;
  wire   g, r, l;

  nor n1 (g, gate_shut, gate_shut);
  nor n2 (r, raise, raise);
  nor n3 (l, level_hi, level_hi);
  nor n4 (upper, g, r, level_hi);
  nor n5 (lower, g, raise, l, boat_in);
endmodule
