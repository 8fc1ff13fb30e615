// A FIFO between two clocks: pointers cross as Gray codes, through two registers.
package gray_pkg;
  function automatic logic [15:0] to_gray(logic [15:0] n);
    return n ^ (n >> 1);
  endfunction
endpackage

interface port #(parameter type T = logic [7:0]) (input logic clk);
  T data;
  logic valid, ready;
  modport source (input clk, ready, output data, valid);
  modport sink (input clk, data, valid, output ready);
endinterface

module crossing #(parameter int W = 4) (input logic clk, input logic [W-1:0] d, output logic [W-1:0] q);
  logic [1:0][W-1:0] stages = '0;
  always_ff @(posedge clk) stages <= {stages[0], d};
  assign q = stages[1];
endmodule

module fifo #(parameter int LOG = 3, parameter type T = logic [7:0]) (port.sink in, port.source out);
  import gray_pkg::*;
  localparam int N = 1 << LOG;
  typedef logic [LOG:0] pointer_t;

  T cells [N];
  pointer_t head = '0, tail = '0, head_seen, tail_seen, head_gray = '0, tail_gray = '0;

  crossing #(.W(LOG + 1)) to_reader (.clk(out.clk), .d(head_gray), .q(head_seen));
  crossing #(.W(LOG + 1)) to_writer (.clk(in.clk), .d(tail_gray), .q(tail_seen));

  // Full where the Gray codes differ in their two upper digits alone.
  assign in.ready = head_gray != {~tail_seen[LOG:LOG-1], tail_seen[LOG-2:0]};
  assign out.valid = tail_gray != head_seen;
  assign out.data = cells[tail[LOG-1:0]];

  always @(posedge in.clk iff in.valid && in.ready) begin
    cells[head[LOG-1:0]] <= in.data;
    head <= head + 1'b1;
    head_gray <= pointer_t'(to_gray(16'(pointer_t'(head + 1'b1))));
  end
  always @(posedge out.clk iff out.valid && out.ready) begin
    tail <= tail + 1'b1;
    tail_gray <= pointer_t'(to_gray(16'(pointer_t'(tail + 1'b1))));
  end
endmodule

module bench;
  timeunit 1ns;
  timeprecision 1ps;
  typedef struct packed { logic last; logic [10:0] number; } item_t;
  int fast, slow, count, wait_in, wait_out, handle, got;
  logic wclk = 0, rclk = 0, done = 0;
  item_t pushed = '0;

  port #(.T(item_t)) source (.clk(wclk)), sink (.clk(rclk));
  fifo #(.LOG(2), .T(item_t)) dut (.in(source.sink), .out(sink.source));

  initial begin
    handle = $fopen("clocks.txt", "r");
    got = $fscanf(handle, "%d %d %d %d %d", fast, slow, count, wait_in, wait_out);
    source.valid = 0;
    sink.ready = 0;
    fork
      while (!done) #(fast * 0.5ns) wclk = ~wclk;
      while (!done) #(slow * 0.5ns) rclk = ~rclk;
      begin
        for (int i = 0; i < count; i++) begin
          repeat (i % (wait_in + 1)) @(negedge wclk);
          source.data = '{last: i == count - 1, number: i};
          source.valid = 1;
          while (!source.ready) @(negedge wclk);
          @(negedge wclk) source.valid = 0;
        end
      end
      begin
        item_t item;
        do begin
          repeat (wait_out) @(negedge rclk);
          while (!sink.valid) @(negedge rclk);
          item = sink.data;
          sink.ready = 1;
          @(negedge rclk) sink.ready = 0;
          $display("%0d", item.number);
        end while (!item.last);
        done = 1;
      end
    join
  end
endmodule
