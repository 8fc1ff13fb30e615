module gate(input clk, rst_n, open, full, output [1:0] phase, output lift, lamp);
  localparam SHUT = 2'b00, FILLING = 2'b01, LIFTING = 2'b10, RAISED = 2'b11;
  reg [1:0] state;
  reg [1:0] following;
  always @(posedge clk or negedge rst_n)
    if (!rst_n)
      state <= 0;
    else
      state <= following;
  always @(*) begin
    following = state;
    case (state)
      SHUT: if (open) following = FILLING;
      FILLING: if (full) following = LIFTING;
      LIFTING: following = RAISED;
      default: if (!open) following = SHUT;
    endcase
  end
  assign phase = state;
  assign lift = state == LIFTING;
  assign lamp = (state == FILLING) | (state == LIFTING);
endmodule
