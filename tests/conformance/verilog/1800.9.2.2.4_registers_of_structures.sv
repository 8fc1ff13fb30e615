// IEEE 1800-2017 clause 9.2.2.4: members of a register written apart keep what they have
module t;
  typedef struct packed { logic valid; logic [3:0] data; } slot;
  slot [1:0] q; logic clk = 0, rst = 1, put = 0; logic [3:0] d = 0;
  always_ff @(posedge clk or posedge rst)
    if (rst) q <= '0;
    else begin
      q[1] <= q[0];
      q[0].valid <= put;
      if (put) q[0].data <= d;
    end
  task tick; #1 clk = 1; #1 clk = 0; endtask
  initial begin
    #1 rst = 0; put = 1; d = 9; tick; $display("%b %b", q[0], q[1]);
    put = 0; d = 4; tick; $display("%b %b", q[0], q[1]);
    tick; $display("%b %b", q[0], q[1]);
  end
endmodule
//> 11001 xxxxx
//> 01001 11001
//> 01001 01001
