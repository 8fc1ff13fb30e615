// IEEE 1364-2005 clause 10.2: copied when the task ends
module t;
  reg [3:0] y, z;
  task both(input [3:0] a, output [3:0] more, output [3:0] less);
    begin
      more = a + 1;
      less = a - 1;
    end
  endtask
  initial begin
    both(5, y, z);
    $display("%0d %0d", y, z);
  end
endmodule
//> 6 4
