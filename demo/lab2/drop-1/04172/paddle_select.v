module paddle_select (input raise, level_hi, gate_shut, boat_in, output upper, lower);
  assign upper = gate_shut & raise & ~level_hi;
  assign lower = gate_shut & ~raise & level_hi & ~boat_in;
endmodule
