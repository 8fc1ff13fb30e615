module paddle_select (input raise, level_hi, gate_shut, boat_in, output upper, lower);
  wire [3:0] no;

  // an array of four inverters out of NOR gates
  nor inv [3:0] (no, {raise, level_hi, gate_shut, boat_in});
  wire a, b;
  nor (upper, no[1], no[3], level_hi);
  nor (a, no[1], raise);
  nor (b, a);
  nor (lower, b, no[2], boat_in);
endmodule
