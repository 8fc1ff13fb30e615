module draught_lamps(draught, lamp);
  input  [3:0] draught;
  output [6:0] lamp;
  wire low;
  assign low  = ~draught[3];
  // thermometer for 0 to 7, two patterns for 8 and 9
  assign lamp = low ? (7'h7f >> (7 - draught[2:0])) : (draught[0] ? 7'h40 : 7'h55);
endmodule
