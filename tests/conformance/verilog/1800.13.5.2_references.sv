// IEEE 1800-2017 clause 13.5.2: an argument by reference is the variable itself while a task waits
module t;
  logic clk = 0;
  int n = 0;
  task automatic count(ref logic c, input int k, ref int total);
    repeat (k) begin
      @(posedge c);
      total++;
    end
  endtask
  initial repeat (6) #1 clk = ~clk;
  initial #2 $display("meanwhile %0d", n);
  initial begin
    count(clk, 3, n);
    $display("%0d at %0t", n, $time);
  end
endmodule
//> meanwhile 1
//> 3 at 5
