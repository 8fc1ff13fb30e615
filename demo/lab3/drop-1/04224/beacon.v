module beacon_sequencer(input clk, input rst, input fog, output lamp, output horn);
  reg [5:0] s;                       // one flip-flop for each phase
  always @(posedge clk)
    if (rst) s = 6'b000001;
    else begin
      s[1] = s[0];
      s[2] = s[1];
      s[3] = s[2];
      s[4] = s[3];
      s[5] = s[4] & fog;
      s[0] = (s[4] & ~fog) | s[5];
    end
  assign lamp = s[1] | s[3];
  assign horn = s[5];
endmodule
