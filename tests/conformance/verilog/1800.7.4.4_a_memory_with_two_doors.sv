// IEEE 1800-2017 clause 7.4.4: what is read in the clock of a write is what was there before
module t;
  logic clk = 0, we = 0; logic [1:0] wa = 0, ra = 0; logic [7:0] d = 0, q, p;
  logic [7:0] mem [4];
  always_ff @(posedge clk) begin if (we) mem[wa] <= d; q <= mem[ra]; end
  assign p = mem[ra];
  task tick; #1 clk = 1; #1 clk = 0; endtask
  initial begin
    mem = '{10, 11, 12, 13}; we = 1; wa = 2; ra = 2; d = 99;
    tick; $display("%0d %0d", q, p);
    tick; $display("%0d %0d", q, p);
    ra = 3; #1 $display("%0d %0d", q, p);
    wa = 'x; d = 7; tick; $display("%p", mem);
  end
endmodule
//> 12 99
//> 99 99
//> 99 13
//> '{10, 11, 99, 13}
