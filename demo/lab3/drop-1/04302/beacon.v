// two flashes, a rest, the horn in fog
module beacon_sequencer(input clk, input rst, input fog, output lamp, output horn);
  localparam DARK = 0, FIRST = 1, GAP = 2, SECOND = 3, REST = 4, SOUND = 5;
  reg [2:0] phase;
  always @(posedge clk)
    if (rst) phase <= DARK;
    else
      case (phase)
        DARK:    phase <= FIRST;
        FIRST:   phase <= GAP;
        GAP:     phase <= SECOND;
        SECOND:  phase <= REST;
        REST:    phase <= fog ? SOUND : DARK;
        SOUND:   phase <= DARK;
        default: phase <= DARK;
      endcase
  assign lamp = phase == FIRST || phase == SECOND;
  assign horn = phase == SOUND;
endmodule
