module beacon_sequencer(input clk, input rst, input fog, output reg lamp, output reg horn);
  reg [2:0] phase;
  always @(posedge clk)
    if (rst) phase <= 0;
    else if (phase == 4) phase <= fog ? 5 : 0;
    else if (phase == 5) phase <= 0;
    else phase <= phase + 1;

  // registered
  always @(posedge clk) begin
    lamp <= phase == 1 || phase == 3;
    horn <= phase == 5;
  end
endmodule
