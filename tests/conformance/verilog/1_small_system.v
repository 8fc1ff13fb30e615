// IEEE 1364-2005 clause 1 to 17: a small system with its bench
`timescale 1ns/1ns
`define OP_AND 3'b100
module ram #(parameter AW = 4, DW = 8) (input wire clk, we, oe, input wire [AW-1:0] addr, inout wire [DW-1:0] data);
  (* ram_style = "block" *) reg [DW-1:0] mem [(1<<AW)-1:0];
  reg [DW-1:0] q;
  assign data = (oe && !we) ? q : {DW{1'bz}};
  always @(posedge clk) begin if (we) mem[addr] <= data; q <= mem[addr]; end
  specify (clk => data) = (1, 2); specparam tp = 3; endspecify
endmodule
module fifo(input clk, rst_n, push, pop, input [7:0] din, output reg [7:0] dout, output full, empty);
  reg [7:0] store [0:3]; reg [1:0] rp, wp; reg [2:0] cnt;
  assign full = (cnt == 3'd4), empty = ~|cnt;
  always @(posedge clk, negedge rst_n)
    if (!rst_n) {rp, wp, cnt} <= 0;
    else begin
      if (push & ~full) begin store[wp] <= din; wp <= wp + 1'b1; end
      if (pop & ~empty) begin dout <= store[rp]; rp <= rp + 1'b1; end
      case ({push & ~full, pop & ~empty}) 2'b10: cnt <= cnt + 1; 2'b01: cnt <= cnt - 1; default: ; endcase
    end
endmodule
module alu(input [2:0] op, input signed [7:0] a, b, output reg signed [7:0] y, output z, output reg v);
  always @(op or a or b) begin
    v = 1'b0;
    casex (op)
      3'b000: begin y = a + b; v = (a[7] == b[7]) && (y[7] != a[7]); end
      3'b001: y = a - b;
      3'b01x: y = op[0] ? a >>> 1 : a <<< 1;
      `OP_AND: y = a & b;
      3'b1?1: y = a ^ b;
      default: y = 'bx;
    endcase
  end
  assign z = !y;
endmodule
module tb;
  parameter PERIOD = 10; localparam [1:0] S0 = 2'd0, S1 = 2'd1;
  reg clk, rst_n, we, oe, push, pop; reg [3:0] addr; reg [7:0] d; reg drive; wire [7:0] bus; reg [7:0] din; wire [7:0] dout; wire full, empty;
  reg [2:0] op; reg signed [7:0] a, b; wire signed [7:0] y; wire z, v; integer errors, i, j; reg [255:0] big;
  assign bus = drive ? d : 'bz;
  ram #(.AW(4)) r(.clk(clk), .we(we), .oe(oe), .addr(addr), .data(bus)), r2(.clk(clk), .we(1'b0), .oe(1'b0), .addr(4'h0), .data());
  fifo f(clk, rst_n, push, pop, din, dout, full, empty);
  alu u_alu(.op(op), .a(a), .b(b), .y(y), .z(z), .v(v));
  initial begin clk = 1'b0; forever #(PERIOD/2) clk = !clk; end
  task check; input [7:0] got; input [7:0] want; begin if (got !== want) begin errors = errors + 1; $display("ERROR at %0t: got %h, want %h", $time, got, want); end end endtask
  task automatic write(input [3:0] at, input [7:0] value);
    begin @(negedge clk); we = 1; drive = 1; addr = at; d = value; @(negedge clk) we = 0; drive = 0; end
  endtask
  initial begin : test
    reg [7:0] t;
    errors = 0; {we, oe, push, pop, drive} = 5'b0; rst_n = 1; #1 rst_n = 0; #12 rst_n = 1;
    for (i = 0; i < 4; i = i + 1) write(i, i * 8'd17);
    oe = 1; for (i = 3; i >= 0; i = i - 1) begin addr = i; @(posedge clk) #1 check(bus, i * 17); end
    oe = 0; #1 check(bus, 8'hzz);
    for (i = 0; i < 6; i = i + 1) begin @(negedge clk) push = 1; din = i + 100; end @(negedge clk) push = 0; check(full, 1);
    repeat (4) begin pop = 1; @(negedge clk) $write("%0d ", dout); end pop = 0; $write("\n"); if (empty) $display("empty");
    op = 0; a = 8'sd100; b = 8'sd100; #1 $display("%0d v=%b z=%b", y, v, z); op = 1; #1 $display("%0d %b", y, z); op = 3'b011; a = -100; #1 $display("%0d", y);
    op = 4; #1 $display("%b", y); op = 5; #1 $display("%b", y); op = 6; #1 $display("%b", y);
    big = 256'd1 << 200; $display("%h", big >> 196); $display("%0d", S1);
    if (errors == 0) $display("PASS"); else $display("FAIL %0d", errors);
    $finish(2);
  end
endmodule
//> 100 101 102 103 
//> empty
//> -56 v=1 z=0
//> 0 1
//> -50
//> 00000100
//> 11111000
//> xxxxxxxx
//> 0000000000000000000000000000000000000000000000000000000000000010
//> 1
//> PASS
