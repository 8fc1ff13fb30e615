module paddle_select (input raise, level_hi, gate_shut, boat_in, output upper, lower);
  wire g = ~|gate_shut;
  nor_gate #(.N(3)) a (.in({g, ~|raise, level_hi}), .out(upper));
  nor_gate #(.N(4)) b (.in({g, raise, ~|level_hi, boat_in}), .out(lower));
endmodule

module nor_gate #(parameter N = 2) (input [N-1:0] in, output out);
  assign out = ~|in;
endmodule
