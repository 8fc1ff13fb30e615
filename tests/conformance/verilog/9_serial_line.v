// IEEE 1364-2005 clause 9 to 12: a clocked design with parameters, a bench that listens and one that talks
`timescale 1ns/1ps
module uart_tx #(parameter DIV = 4) (input clk, rst, start, input [7:0] data, output reg tx, output busy);
  localparam IDLE = 2'd0, START = 2'd1, BITS = 2'd2, STOP = 2'd3;
  reg [1:0] state; reg [$clog2(DIV)-1:0] div; reg [2:0] n; reg [7:0] sh;
  wire tick = div == DIV - 1;
  assign busy = state != IDLE;
  always @(posedge clk or posedge rst)
    if (rst) begin state <= IDLE; tx <= 1'b1; div <= 0; end
    else begin
      div <= tick ? 0 : div + 1'b1;
      case (state)
        IDLE: if (start) begin state <= START; sh <= data; div <= 0; tx <= 1'b0; end
        START: if (tick) begin state <= BITS; n <= 0; tx <= sh[0]; sh <= sh >> 1; end
        BITS: if (tick) begin if (&n) begin state <= STOP; tx <= 1'b1; end else begin n <= n + 1'b1; tx <= sh[0]; sh <= {1'b0, sh[7:1]}; end end
        STOP: if (tick) state <= IDLE;
      endcase
    end
endmodule
module tb;
  reg clk = 0, rst = 1, start = 0; reg [7:0] data; wire tx, busy; reg [7:0] got; integer k; reg [8*8:1] name;
  uart_tx #(.DIV(4)) dut (.clk(clk), .rst(rst), .start(start), .data(data), .tx(tx), .busy(busy));
  always #5 clk = ~clk;
  task send(input [7:0] b);
    begin
      @(negedge clk) begin data = b; start = 1; end
      @(negedge clk) start = 0;
      wait (!busy);
    end
  endtask
  initial begin : receiver
    forever begin
      @(negedge tx);
      #20;
      for (k = 0; k < 8; k = k + 1) begin #40 got[k] = tx; end
      #40 if (tx !== 1'b1) $display("framing error"); else $display("%0t got %h '%c'", $time, got, got);
    end
  end
  initial begin
    #22 rst = 0; name = "Canal"; $display("%0s", name);
    send("O"); send("k"); send(8'h21);
    #200 disable receiver; $finish;
  end
  initial #100000 begin $display("timeout"); $finish; end
endmodule
//> Canal
//> 415000 got 4f 'O'
//> 825000 got 6b 'k'
//> 1235000 got 21 '!'
